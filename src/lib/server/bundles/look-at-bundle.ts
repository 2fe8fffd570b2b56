/** What a bundle holds, before it is put in. */
import { nameKey } from '$lib/core/text/key.ts'
import type { LookedAtBundle } from '$lib/core/requests/bundles.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { Store } from '../store/store.ts'
import type { GivenText } from './put-bundle.ts'
import { readBundle } from './read-bundle.ts'

export function lookAtBundle(store: Store, { text, actor }: GivenText): LookedAtBundle {
	refuseUnlessBuilder(store, actor)
	const { app, tables, access, roles, files } = readBundle(text)
	const here = new Set(store.workspace().roles.map(({ name }) => nameKey(name)))
	const used = new Set([
		...access.map(({ role }) => role),
		...app.screens.flatMap(({ who }) => who),
		...app.routines.flatMap(({ acts }) => acts ?? [])
	])
	return {
		app: app.name,
		screens: app.screens.map(({ title }) => title),
		tables: tables.map(({ id, name, columns, rows }) => ({
			...{ name, columns: columns.length, rows: rows.length },
			lines: access.filter(({ table }) => table === id).length
		})),
		strange: roles.flatMap(({ id, name }) => (used.has(id) && !here.has(nameKey(name)) ? [name] : [])),
		files: files.length
	}
}
