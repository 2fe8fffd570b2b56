import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { forForm, parseForm } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals, params, url, depends }) {
	depends('app:draft')
	const actor = getBuilder(locals)
	const app = Number(params.app)
	const { host, now } = locals
	const { document } = await host.read('draft', { app })
	const asked = url.searchParams.get('routine') ?? ''
	const routine = document.routines.some(({ id }) => id === asked) ? asked : (document.routines[0]?.id ?? '')
	const before = url.searchParams.get('before')
	const [states, runs, programs] = await Promise.all([
		host.read('routineStates', { app, actor, now }),
		host.read('listRuns', { app, routine, actor, now, ...(before === null ? {} : { before }) }),
		host.read('programNames', { actor, now })
	])
	return { states, runs, programs, open: routine }
}

const switchSchema = z.object({ routine: z.string().min(1).max(40), on: z.enum(['yes', 'no']) })

const nameSchema = z.object({ routine: z.string().min(1).max(40) })

export const actions = {
	try: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const form = Object.fromEntries(await request.formData())
		return forForm({}, async () => {
			const { routine: id } = parseForm(form, nameSchema, 'This cannot be read. Load the page again.')
			const { document } = await locals.host.read('draft', { app: Number(params.app) })
			const routine = document.routines.find((each) => each.id === id)
			if (!routine) throw new AppError('not_found', 'This routine is not in the draft any more. Load the page again.')
			return { routine: id, tried: await locals.host.read('tryRoutine', { document, routine, actor, now: locals.now }) }
		})
	},
	now: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const form = Object.fromEntries(await request.formData())
		return forForm({}, async () => {
			const { routine } = parseForm(form, nameSchema, 'This cannot be read. Load the page again.')
			await locals.host.write('startNow', { app: Number(params.app), routine, actor, now: locals.now })
			return { routine, began: true }
		})
	},
	switch: async ({ request, locals, params }) => {
		const actor = getBuilder(locals)
		const form = Object.fromEntries(await request.formData())
		return forForm({}, async () => {
			const { routine, on } = parseForm(form, switchSchema, 'This cannot be read. Load the page again.')
			const asked = { app: Number(params.app), routine, on: on === 'yes', actor, now: locals.now }
			await locals.host.write('setRoutineOn', asked)
			return {}
		})
	}
}
