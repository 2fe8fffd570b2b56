import { AppError } from '$lib/core/app-error.ts'
import { readWaiting } from '$lib/server/web/waiting.ts'
import { forPage } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params }) {
	const actor = getNamedActor(locals)
	const asked = locals.host.read('ask', { id: params.ask, actor, now: locals.now })
	const [waits, { sheet, over }] = await Promise.all([readWaiting(locals), forPage(() => unlessOver(asked))])
	return { waits, sheet, over }
}

/** Links of messages lead here long after: that it was answered is nothing that went wrong. */
async function unlessOver<T>(asked: Promise<T>): Promise<{ sheet: T | null; over: string }> {
	try {
		return { sheet: await asked, over: '' }
	} catch (thrown) {
		if (thrown instanceof AppError && thrown.code === 'conflict') return { sheet: null, over: thrown.message }
		throw thrown
	}
}
