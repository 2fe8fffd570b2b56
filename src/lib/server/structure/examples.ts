/**
 * Pinned examples of a table: "Imke Dahl must see NH-014". They are asked again with every save of the workspace and
 * before a release. A save that breaks one that held is refused; one that rows or people have broken since is shown.
 */
import type { ShownExample } from '$lib/core/requests/access.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { Line } from '$lib/core/access/types.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { TableEntry } from '$lib/core/workspace/document.ts'
import { describePerson } from '../rights/accounts.ts'
import { rightsUnder, type Actor } from '../rights/rights-of-actor.ts'
import { countUnder } from '../rows/resolve.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'

export type Example = NonNullable<TableEntry['examples']>[number]

interface Under {
	readonly table: Table
	readonly lines: readonly Line[]
	readonly now: number
}

/** The examples of a table, and whether each holds under some lines. */
export function readExamples(store: Store, { actor, ...under }: Under & { actor: Actor }): ShownExample[] {
	const { table, now } = under
	return examplesOf(store, table.id).map((example) => {
		const row = store.ids.toId(table.id, example.row)
		return {
			person: example.person,
			name: describePerson(store, example.person)?.name ?? 'Somebody who is gone',
			row,
			label: labelOf(store, { table, row, actor, now }),
			sees: example.sees,
			holds: doesHold(store, example, under)
		}
	})
}

/** Those of all tables that hold as things stand: what a save must not break. */
export function examplesThatHold(store: Store, now: number): { table: number; example: Example }[] {
	const { document, catalogue, lines } = store.workspace()
	return document.tables.flatMap(({ id, examples = [] }) => {
		const table = catalogue.tables.get(id)
		if (!table) return []
		return examples
			.filter((example) => doesHold(store, example, { table, lines, now }))
			.map((example) => ({ table: id, example }))
	})
}

/** Those of all tables that do not hold as things stand, in words that name people but no rows. */
export function brokenExamples(store: Store, now: number): { table: Table; says: string }[] {
	const { document, catalogue, lines } = store.workspace()
	return document.tables.flatMap(({ id, examples = [] }) => {
		const table = catalogue.tables.get(id)
		if (!table) return []
		return examples
			.filter((example) => !doesHold(store, example, { table, lines, now }))
			.map(({ person, sees }) => {
				const name = describePerson(store, person)?.name ?? 'Somebody'
				return {
					table,
					says: sees ? `${name} no longer sees a row` : `${name} sees a row that was to be kept from them`
				}
			})
	})
}

/** Refuses, naming the first example that held before and does not now. */
export function refuseBrokenExamples(
	store: Store,
	held: readonly { table: number; example: Example }[],
	{ by, now }: { by: number | null; now: number }
): void {
	const { catalogue, lines } = store.workspace()
	for (const { table: id, example } of held) {
		const table = catalogue.tables.get(id)
		if (!table || doesHold(store, example, { table, lines, now })) continue
		// Who does not keep the table learns only that something of it stands in the way.
		if (by !== null && !table.keepers.includes(by))
			throw new AppError('invalid', 'An example that a keeper of another table has pinned would no longer hold.')
		const row = store.ids.toId(id, example.row)
		const name = describePerson(store, example.person)?.name ?? 'Somebody'
		const label = by === null ? row : labelOf(store, { table, row, actor: { person: by }, now })
		const must = example.sees ? 'must see' : 'must not see'
		const would = example.sees ? 'would not' : 'would'
		throw new AppError(
			'invalid',
			`${name} ${must} ${label} of ${table.name}, but then ${would}. Change the lines, or take the example off first.`
		)
	}
}

function examplesOf(store: Store, table: number): readonly Example[] {
	return store.workspace().document.tables.find((entry) => entry.id === table)?.examples ?? []
}

function doesHold(store: Store, { person, row, sees }: Example, { table, lines, now }: Under): boolean {
	const rights = rightsUnder(store, person, lines, now)
	return countUnder(store, rights, { table, where: [], row, limit: 1 }) > 0 === sees
}

function labelOf(
	store: Store,
	{ table, row, actor, now }: { table: Table; row: string; actor: Actor; now: number }
): string {
	const page = readRows(store, actor, { table: table.id, row, columns: [table.label] }, now)
	const cell = page.rows[0]?.cells[`c${table.label}`]
	if (page.rows.length === 0) return 'a row that is gone'
	return cell === null || cell === undefined || typeof cell === 'object' ? 'a row without a name' : String(cell)
}
