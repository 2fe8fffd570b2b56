/** What a form is made of beside its entries: pages, rows that go in with its own, values shown as one types. */
import { z } from 'zod'
import { check } from '../../formula/check/check.ts'
import { checkColumns, mistake, remark, TABLE_GONE } from '../../document/findings.ts'
import { formula, number, words } from '../../document/parts.ts'
import { findColumn } from '../../model/table.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'

export const pageSchema = z.object({ ...lineParts, kind: z.literal('page'), title: words })
export const itemsSchema = z.object({
	...lineParts,
	kind: z.literal('items'),
	table: number,
	/** Its reference to the row that the form adds. */
	of: number,
	columns: z.array(number),
	/** So many at least; a row that is blank throughout does not count. */
	least: number.max(100).nullable().default(null)
})
export const shownSchema = z.object({ ...lineParts, kind: z.literal('shown'), value: formula, label: words })

export type PageLine = z.infer<typeof pageSchema> & { readonly lines: readonly TreeLine[] }
export type ItemsLine = z.infer<typeof itemsSchema> & { readonly lines: readonly TreeLine[] }
export type WorkedLine = z.infer<typeof shownSchema>

export const page: LineEntry<PageLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'page',
			about: 'One page of a form; the next one is reached once this one is filled in',
			parts: withWhom('Page ', { key: 'title', type: 'text', title: 'title' })
		},
		blank: { kind: 'page', title: '', who: [], lines: [] }
	},
	holds: ['entry', 'items', 'shown', 'heading', 'text', 'divider'],
	isInner: true,
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.title.trim() === '' ? mistake('A page needs a title.') : []),
		...(line.lines.length === 0 ? remark('This page asks for nothing yet.') : [])
	]
}

export const items: LineEntry<ItemsLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'items',
			about: 'Rows of another table that go in together with the row of the form: all of it, or nothing',
			tableKey: 'table',
			parts: withWhom(
				'Ask for rows of ',
				{ key: 'table', type: 'table', title: 'a table' },
				', which belong to it by ',
				{ key: 'of', type: 'column', title: 'Its reference to the row of the form' },
				{ key: 'columns', type: 'columns', title: 'columns', before: ', asking for ', clause: 'asking for…' },
				{ key: 'least', type: 'count', title: 'How many at least', before: ', at least ', clause: 'at least…' }
			)
		},
		blank: { kind: 'items', table: null, of: null, columns: [], least: null, who: [], lines: [] }
	},
	holds: ['entry', 'shown'],
	isInner: true,
	goesWithOuter: true,
	written: ({ columns, of }) => [...columns, of],
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const of = findColumn(table, line.of)
		return [
			...checkWhom(line, around),
			...(line.columns.length > 0 ? checkColumns(line.columns, table) : []),
			...(of?.type === 'reference' && of.to === around.outer?.id
				? []
				: mistake('Its rows belong to the row of the form by a reference to that table. Choose such a column.'))
		]
	}
}

export const shown: LineEntry<WorkedLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'shown',
			about: 'A value that is worked out while somebody fills in the form; of rows also what they come to together',
			parts: withWhom('Show ', { key: 'value', type: 'formula', title: 'What is worked out' }, ' as ', {
				key: 'label',
				type: 'text',
				title: 'its name'
			})
		},
		blank: { kind: 'shown', value: '', label: '', who: [] }
	},
	isInner: true,
	check(line, around) {
		const table = around.table === undefined ? undefined : around.catalogue.tables.get(around.table)
		if (!table) return mistake(TABLE_GONE)
		if (line.label.trim() === '') return mistake('Give the value a name: a number alone says nothing.')
		if (line.value.trim() === '') return mistake('Say what is worked out.')
		const rows = [...(around.outer ? [around.outer] : []), table]
		const { issues } = check(line.value, { catalogue: around.catalogue, rows, me: true, here: around.here })
		return [...checkWhom(line, around), ...issues.flatMap(({ message }) => mistake(message))]
	}
}
