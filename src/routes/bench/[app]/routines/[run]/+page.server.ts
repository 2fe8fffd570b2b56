import { error } from '@sveltejs/kit'
import { z } from 'zod'
import { forForm, parseForm } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params }) {
	const actor = getBuilder(locals)
	const app = Number(params.app)
	const { host, now } = locals
	const run = await host.read('readRun', { app, id: params.run, actor, now })
	if (!run) error(404, 'There is no such run of this app. Ended runs are cleared after 90 days.')
	const [released, runs] = await Promise.all([
		host.read('release', { app, number: run.release }),
		host.read('listRuns', { app, routine: run.routine, actor, now })
	])
	if (!released) throw new Error(`Expected release ${run.release} of app ${app} to be kept, as a run began with it`)
	return { run, runs, asRan: released }
}

const moveSchema = z.object({ move: z.enum(['again', 'cancel']) })

export const actions = {
	default: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const form = Object.fromEntries(await request.formData())
		return forForm({}, async () => {
			const { move } = parseForm(form, moveSchema, 'This cannot be read. Load the page again.')
			const asked = { app: Number(params.app), run: params.run, actor, now: locals.now }
			await locals.host.write(move === 'again' ? 'tryRunAgain' : 'cancelRun', asked)
			return {}
		})
	}
}
