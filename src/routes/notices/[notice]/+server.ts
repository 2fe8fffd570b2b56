import { redirect } from '@sveltejs/kit'
import { forPage } from '$lib/server/web/answer.ts'
import { getNamed } from '$lib/server/web/signed-in.ts'

/** Marks a notice as read, and goes where it leads: a form's doing, since an address that is only looked at changes nothing. */
export async function POST({ locals, params }) {
	const { person } = getNamed(locals)
	const { notice: id } = params
	const link = await forPage(() => locals.host.write('openNotice', { id, person, now: locals.now }))
	redirect(303, link ?? '/notices')
}
