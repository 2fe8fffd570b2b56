import { redirect } from '@sveltejs/kit'
import { z } from 'zod'
import { COLOURS } from '$lib/core/app/document.ts'
import { forForm, parseForm } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

export async function load({ locals }) {
	const actor = getBuilder(locals)
	const bench = await locals.host.read('bench', { actor, now: locals.now })
	return {
		tables: bench.tables.map(({ id, name, rows, owned }) => ({ id, name, rows, owned })),
		roles: bench.vocabulary.roles
	}
}

const newSchema = z.object({
	name: z.string().trim().min(1, 'Give the app a name.').max(80),
	about: z.string().trim().max(200),
	colour: z.enum(COLOURS),
	tables: z.array(z.coerce.number().int()),
	/** Blank for one that is made from a file or from tables. */
	starter: z.string().max(40),
	role: z.coerce.number().int()
})

export const actions = {
	default: async ({ request, locals }) => {
		const actor = getBuilder(locals)
		const form = await request.formData()
		const asked = {
			name: form.get('name'),
			about: form.get('about') ?? '',
			colour: form.get('colour'),
			tables: form.getAll('table'),
			starter: form.get('starter') ?? '',
			role: form.get('role') ?? 0
		}
		return forForm({ name: String(asked.name ?? '') }, async () => {
			const { tables, starter, role, ...app } = parseForm(asked, newSchema)
			if (starter !== '') {
				const { name, about } = app
				const begun = await locals.host.write('startFrom', { starter, name, about, role, actor, now: locals.now })
				redirect(303, `/bench/${begun}/screens`)
			}
			const id = await locals.host.write('addApp', { app, tables, actor, now: locals.now })
			redirect(303, tables.length > 0 ? `/bench/${id}/screens` : `/bench/${id}/sources`)
		})
	}
}
