import { redirect } from '@sveltejs/kit'
import { AppError } from '$lib/core/app-error.ts'
import { readQuery, textInAddress, wholeInAddress } from '$lib/server/web/address.ts'
import { keepBriefly } from '$lib/server/web/brief-cookies.ts'
import { goOut } from '$lib/server/sign-in/outside-sign-in.ts'
import { openThrottle } from '$lib/server/base/throttle.ts'
import { safePath } from '$lib/server/base/safe-path.ts'

const gone = openThrottle(60)

/** To a provider outside; what it says is brought back to `/sign-in/back`. */
export async function GET({ locals, params, url, cookies }) {
	if (!gone.take(locals.from, locals.now)) redirect(303, '/sign-in/back?error=busy')
	const { door = 0, then } = readQuery(url, { door: wholeInAddress.optional(), then: textInAddress.optional() })
	const going = {
		provider: Number(params.provider),
		then: safePath(then ?? null),
		...(door > 0 ? { door } : {})
	}
	let out: { url: string; state: string }
	try {
		out = await goOut(locals.host, going)
	} catch (error) {
		if (!(error instanceof AppError)) throw error
		redirect(303, '/sign-in/back?error=unreachable')
	}
	keepBriefly(cookies, url, 'leaving', out.state)
	redirect(303, out.url)
}
