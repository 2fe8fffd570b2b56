import { z } from 'zod'
import { findColumn, type Table } from '../../model/table.ts'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { appFile, formula, id, number } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { lineParts, withWhom, WHICH_ROWS, ONCE_CHOSEN } from './parts.ts'
import { checkShowsRows, TAP_OPENS } from './shows-rows.ts'
import type { TreeLine } from './tree.ts'

export const mapSchema = z.object({
	...lineParts,
	kind: z.literal('map'),
	table: number,
	where: formula,
	once: formula.default(''),
	/** The place at which a row lies. */
	at: number,
	/** What each shows: the first is its name. */
	columns: z.array(number),
	/** A choice by which their signs are told apart. */
	by: number.nullable().default(null),
	/** The whole number by which they are called at one after another. */
	order: number.nullable().default(null),
	/** The land and water under them, as GeoJSON; blank paper with a scale, where there is none. */
	ground: appFile.nullable().default(null),
	opens: id.nullable().default(null)
})
export type MapLine = z.infer<typeof mapSchema> & { readonly lines: readonly TreeLine[] }

/** As many signs as are told apart by shape and colour. */
export const MOST_SIGNS = 6

/** Rows where they lie. */
export const map: LineEntry<MapLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'map',
			about:
				'Rows where they lie, with what is near; the ground is drawn from a file of yours, and nothing is fetched from outside',
			tableKey: 'table',
			parts: withWhom(
				'Map of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				WHICH_ROWS,
				ONCE_CHOSEN,
				', each at ',
				{ key: 'at', type: 'column', title: 'a place' },
				'; each shows ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				{ key: 'by', type: 'column', title: 'A choice', before: '; told apart by ', clause: 'told apart by…' },
				{ key: 'ground', type: 'ground', title: 'The ground', before: '; on the ground ', clause: 'on a ground…' },
				{
					...{ key: 'order', type: 'column', title: 'The number of each call' },
					...{ before: '; called at by ', clause: 'called at in an order…' }
				},
				TAP_OPENS
			)
		},
		blank: {
			...{ kind: 'map', table: null, where: '', once: '', at: null, columns: [], by: null, order: null, ground: null },
			...{ opens: null, who: [], lines: [] }
		}
	},
	holds: ['mark'],
	written: ({ order }) => (order === null ? [] : [order]),
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkShowsRows(line, table, around),
			...(findColumn(table, line.at)?.type === 'place'
				? []
				: mistake('What it goes by holds no places. Choose a column of places.')),
			...checkSigns(line, table),
			...checkOrder(line, table)
		]
	}
}

function checkOrder({ order }: MapLine, table: Table): Found[] {
	if (order === null) return []
	return findColumn(table, order)?.type === 'whole number'
		? []
		: mistake('Places are called at by a whole number. Choose such a column.')
}

function checkSigns({ by }: MapLine, table: Table): Found[] {
	if (by === null) return []
	const column = findColumn(table, by)
	if (column?.type !== 'choice') return mistake('Signs are told apart by a choice. Choose such a column.')
	const count = column.choices?.length ?? 0
	return count > MOST_SIGNS
		? mistake(`${column.name} has ${count} choices, and only ${MOST_SIGNS} signs are told apart.`)
		: []
}
