/** What lies in the trust's stores: its table, who sees it, and the app that keeps count of it. */
import { APP_FORMAT, type AppInput } from '../src/lib/core/app/document.ts'
import type { NewColumn } from '../src/lib/server/structure/tables.ts'
import type { Columns } from './mooring-screens.ts'
import type { Random } from './random.ts'
import { shelfRoutines } from './routines.ts'
import { ROLE_IDS } from './tables.ts'

const KINDS = ['Chain', 'Shackle', 'Rope', 'Swivel', 'Buoy', 'Paint', 'Tool', 'Spare'] as const
type Kind = (typeof KINDS)[number]

export const stockColumns = (harbours: number): NewColumn[] => [
	{ name: 'Item', type: 'text', required: true },
	{ name: 'Barcode', type: 'code', unique: true },
	{ name: 'Kind', type: 'choice', choices: [...KINDS], required: true },
	{ name: 'Harbour', type: 'reference', to: harbours, required: true, reverseName: 'stock' },
	{ name: 'Shelf', type: 'text' },
	{ name: 'In stock', type: 'whole number', required: true },
	{ name: 'Least', type: 'whole number' },
	{ name: 'Sold in', type: 'whole number' },
	{ name: 'Price', type: 'money', unit: '£' },
	{ name: 'On order', type: 'yes/no' },
	{ name: 'Counted', type: 'date' },
	{ name: 'Note', type: 'long text' },
	{ name: 'Worth', type: 'computed', formula: "'In stock' * Price" },
	{ name: 'short', type: 'computed', formula: "'In stock' < Least", condition: true }
]

/** What was taken from a shelf: one row for each item and day. */
export const takingColumns = (stock: number): NewColumn[] => [
	{ name: 'Taking', type: 'text' },
	{ name: 'Item', type: 'reference', to: stock, required: true, reverseName: 'takings' },
	{ name: 'Day', type: 'date', required: true },
	{ name: 'Taken', type: 'whole number' }
]

export function takingLines() {
	const all = { kind: 'all' as const }
	const verbs = ['see' as const, 'add' as const, 'change' as const, 'remove' as const]
	return [
		{ role: ROLE_IDS['Stores keepers'], verbs, where: 'Item.Harbour = me.Harbour', columns: all },
		{ role: ROLE_IDS['Trust manager'], verbs: ['see' as const], where: '', columns: all }
	]
}

export function stockLines(columns: Columns) {
	const all = { kind: 'all' as const }
	const own = 'Harbour = me.Harbour'
	return [
		{ role: ROLE_IDS['Stores keepers'], verbs: ['see' as const], where: '', columns: all },
		{ role: ROLE_IDS['Stores keepers'], verbs: ['add' as const, 'change' as const], where: own, columns: all },
		{
			role: ROLE_IDS.Divers,
			verbs: ['see' as const],
			where: own,
			columns: { kind: 'except' as const, columns: ['Price', 'Worth'].map(columns) }
		},
		{ role: ROLE_IDS['Trust manager'], verbs: ['see' as const], where: '', columns: all }
	]
}

export interface StockRow extends Readonly<Record<string, string | number | boolean>> {
	/** By its name. */
	readonly harbour: string
}

/** 180 items, a few of them gone and some short. `today`: a date as text. */
export function stockRows(random: Random, harbours: readonly string[], today: string): StockRow[] {
	let number = 0
	return harbours.flatMap((harbour) =>
		KINDS.flatMap((kind) =>
			ITEMS[kind].map(([item, price, pack]) => {
				number++
				const least = pack * (1 + random.below(4))
				const stock = random.chance(0.06)
					? 0
					: random.chance(0.2)
						? random.below(least)
						: least + random.below(6 * pack)
				const shelf = `${'ABCDEF'[KINDS.indexOf(kind) % 6]}${1 + random.below(8)}`
				return {
					...{ Item: item, Kind: kind, harbour, Shelf: shelf, 'In stock': stock, Least: least, 'Sold in': pack },
					...{ Barcode: `VQ-${String(number).padStart(4, '0')}`, Price: price },
					...{ 'On order': stock < least && random.chance(0.4), Counted: dayBefore(today, random.below(120)) }
				}
			})
		)
	)
}

function dayBefore(today: string, days: number): string {
	return new Date(Date.parse(today) - days * 86_400_000).toISOString().slice(0, 10)
}

/** Each with its price and how many there are to a pack. */
const ITEMS: Readonly<Record<Kind, readonly (readonly [string, number, number])[]>> = {
	Chain: [
		['Chain 13 mm, long link', 9.4, 10],
		['Chain 16 mm, long link', 13.8, 10],
		['Chain 19 mm, open link', 19.2, 5],
		['Riser chain 22 mm', 26.5, 5],
		['Joining link 16 mm', 5.6, 10]
	],
	Shackle: [
		['Bow shackle 10 mm', 3.2, 10],
		['Bow shackle 13 mm', 4.9, 10],
		['Bow shackle 16 mm', 7.1, 10],
		['Dee shackle 19 mm', 9.6, 5],
		['Mousing wire, roll', 6.4, 1],
		['Split pins, mixed', 2.1, 20],
		['Rigging screw M16', 15.5, 4]
	],
	Rope: [
		['Three-strand 14 mm, metre', 1.9, 50],
		['Three-strand 20 mm, metre', 3.1, 50],
		['Chafe sleeve 40 mm', 11.5, 4],
		['Thimble 16 mm', 2.8, 10],
		['Whipping twine, reel', 4.7, 6]
	],
	Swivel: [
		['Swivel 13 mm', 21, 2],
		['Swivel 16 mm', 29.5, 2],
		['Swivel 19 mm', 41, 2],
		['Swivel 22 mm', 58, 1]
	],
	Buoy: [
		['Pick-up buoy, orange', 18.5, 4],
		['Mooring buoy 45 cm', 62, 2],
		['Mooring buoy 60 cm', 97, 2],
		['Number plate, blank', 4.2, 10],
		['Reflective band', 3.3, 10]
	],
	Paint: [
		['Marine gloss, white 2.5 l', 38, 2],
		['Marine gloss, bottle green 2.5 l', 38, 2],
		['Anti-fouling 5 l', 84, 1],
		['Thinner 1 l', 9.8, 4],
		['Brush 50 mm', 4.4, 6]
	],
	Tool: [
		['Marlin spike', 14, 1],
		['Chain caliper', 46, 1],
		['Lifting sling 2 t', 33, 1],
		['Dive knife', 27, 1],
		['Marker crayon, yellow', 1.2, 12],
		['Work gloves, pair', 6.9, 12]
	],
	Spare: [
		['Impeller kit', 34, 1],
		['Fuel filter', 12.5, 2],
		['Grease cartridge', 5.3, 12],
		['Bilge pump 12 V', 39, 1],
		['Ladder rung', 17, 4],
		['Fender eye', 8.8, 4],
		['Lamp, quay light', 22, 4],
		['Bolt set M16', 3.6, 20]
	]
}

export interface StoresTables {
	readonly stock: number
	readonly item: Columns
	readonly harbours: number
	readonly takings: number
	readonly taking: Columns
}

export function stores({ stock, item, harbours, takings, taking }: StoresTables): AppInput {
	return {
		format: APP_FORMAT,
		name: 'Stores',
		about: 'What lies on the shelves of each harbour, what runs short, and what is on its way',
		colour: 'rope',
		screens: [
			{
				...{ id: 'stock', title: 'Stock', icon: 'stock' },
				lines: [
					{ id: 'stock-1', kind: 'heading', text: 'On the shelves' },
					{ id: 'stock-11', kind: 'scan', label: 'Taking one: scan its code', routine: 'took' },
					{
						...{ id: 'stock-2', kind: 'list', table: stock, where: 'Harbour = me.Harbour', opens: 'item' },
						...{ sort: [{ column: item('Item'), descending: false }], group: item('Kind') },
						...{ columns: ['Item', 'In stock', 'Least', 'Shelf'].map(item), finds: ['Item', 'Barcode'].map(item) },
						...{ filters: ['Kind', 'Shelf'].map(item), empty: 'Nothing lies on the shelves of your harbour.' },
						lines: [
							{ id: 'stock-3', kind: 'mark', word: 'none left', tone: 'past', where: "'In stock' <= 0" },
							{ id: 'stock-4', kind: 'mark', word: 'short', tone: 'look', where: 'short' },
							{
								...{ id: 'stock-5', kind: 'tally', table: stock, column: item('In stock') },
								less: 'takes it away too'
							},
							{ id: 'stock-6', kind: 'button', label: 'Counted today', does: { kind: 'run', routine: 'counted' } },
							{
								...{ id: 'stock-8', kind: 'button', label: 'In other harbours', does: { kind: 'open', screen: 'all' } },
								lines: [{ id: 'stock-9', kind: 'with', value: 'Item', as: 'sought' }]
							}
						]
					},
					{ id: 'stock-7', kind: 'button', label: 'New item', does: { kind: 'open', screen: 'new' } },
					{ id: 'stock-10', kind: 'shared', screen: 'desk' }
				]
			},
			{
				...{ id: 'order', title: 'To order', icon: 'basket' },
				lines: [
					{ id: 'order-1', kind: 'heading', text: 'What runs short' },
					{
						...{ id: 'order-2', kind: 'list', table: stock, where: 'short AND Harbour = me.Harbour', opens: 'item' },
						...{ as: 'a table', sort: [{ column: item('Kind'), descending: false }] },
						...{ columns: ['Item', 'Kind', 'In stock', 'Least', 'Sold in', 'Price'].map(item) },
						...{ ticks: item('On order'), totals: [item('In stock')], empty: 'Nothing runs short.' }
					},
					{
						...{ id: 'order-3', kind: 'buttons' },
						lines: [
							{
								id: 'order-4',
								kind: 'button',
								label: 'As a workbook',
								icon: 'table',
								does: { kind: 'export', format: 'xlsx' }
							},
							{ id: 'order-5', kind: 'button', label: 'Print it', icon: 'paper', does: { kind: 'print' } }
						]
					},
					{ id: 'order-6', kind: 'shared', screen: 'desk' }
				]
			},
			{
				...{
					id: 'all',
					title: 'All harbours',
					icon: 'shed',
					who: [ROLE_IDS['Trust manager'], ROLE_IDS['Stores keepers']]
				},
				first: [ROLE_IDS['Trust manager']],
				lines: [
					{ id: 'all-1', kind: 'heading', text: 'Stock of all harbours' },
					{ id: 'all-4', kind: 'search', holds: 'sought', label: 'Item', sample: 'shackle' },
					{ id: 'all-3', kind: 'choose', table: harbours, where: '', holds: 'harbour', label: 'Harbour' },
					{ id: 'all-5', kind: 'filter', table: stock, column: item('Kind'), holds: 'kind' },
					{
						...{ id: 'all-6', kind: 'filter', table: stock, column: item('Price') },
						...{ holds: 'most', label: 'Price at most' }
					},
					{
						...{
							id: 'all-2',
							kind: 'list',
							table: stock,
							where: '',
							once: 'Harbour = here.harbour and Kind = here.kind and Price <= here.most and ISNUMBER(SEARCH(here.sought; Item))',
							opens: 'item',
							as: 'a table'
						},
						...{ sort: [{ column: item('Worth'), descending: true }], group: item('Harbour') },
						...{ columns: ['Item', 'Kind', 'In stock', 'Price', 'Worth'].map(item), totals: [item('Worth')] },
						...{ wide: [item('Item')], narrow: [item('In stock')] },
						empty: 'No harbour has that.'
					}
				]
			},
			{
				...{ id: 'item', title: 'Item' },
				lines: [
					{
						...{ id: 'item-1', kind: 'record', table: stock, across: 'in two columns' },
						columns: ['Kind', 'Barcode', 'Note'].map(item),
						lines: [
							{
								id: 'item-2',
								kind: 'part',
								title: 'Where it lies',
								columns: ['Harbour', 'Shelf', 'Counted'].map(item)
							},
							{
								...{ id: 'item-3', kind: 'part', title: 'How many' },
								columns: ['In stock', 'Least', 'Sold in', 'On order', 'Price', 'Worth'].map(item)
							},
							{
								id: 'item-4',
								kind: 'tally',
								table: stock,
								column: item('In stock'),
								less: 'takes it away too',
								label: 'One'
							},
							{
								...{ id: 'item-5', kind: 'tally', table: stock, column: item('In stock'), by: "'Sold in'" },
								...{ less: 'takes it away too', label: 'A pack' }
							},
							{
								...{ id: 'item-8', kind: 'tally', table: takings, column: taking('Taken'), less: 'takes it away too' },
								...{ of: taking('Item'), key: taking('Day'), is: 'TODAY()', label: 'Taken today' }
							}
						]
					},
					{
						...{ id: 'item-11', kind: 'buttons' },
						lines: [
							{ id: 'item-6', kind: 'button', label: 'Counted today', does: { kind: 'run', routine: 'counted' } },
							{ id: 'item-15', kind: 'button', label: 'Order a pack', does: { kind: 'run', routine: 'pack' } },
							{
								id: 'item-7',
								kind: 'button',
								label: 'Count it',
								icon: 'checklist',
								does: { kind: 'open', screen: 'count' }
							}
						]
					},
					{
						...{ id: 'item-9', kind: 'fold', title: 'What was taken, day by day' },
						lines: [
							{
								...{ id: 'item-10', kind: 'list', table: takings, where: '', of: taking('Item'), opens: null },
								...{ as: 'a table', sort: [{ column: taking('Day'), descending: true }] },
								...{ columns: ['Day', 'Taken'].map(taking), totals: [taking('Taken')] },
								empty: 'Nothing was taken yet.'
							}
						]
					}
				]
			},
			{
				...{ id: 'count', title: 'Count' },
				lines: [
					{ id: 'count-0', kind: 'heading', text: 'Count what lies there' },
					{
						...{ id: 'count-1', kind: 'form', table: stock, columns: [], changes: 'the row that is shown' },
						...{ thanks: 'Counted.', then: 'goes back' },
						lines: [
							{
								...{ id: 'count-2', kind: 'entry', column: item('In stock'), help: 'As many as you can touch.' },
								...{ unless: "'In stock' >= 0", says: 'There cannot be less than nothing on a shelf.' }
							},
							{ id: 'count-3', kind: 'entry', column: item('Shelf'), stands: 'beside the one before' },
							{ id: 'count-4', kind: 'shown', value: "'In stock' * Price", label: 'Worth' },
							{
								id: 'count-5',
								kind: 'entry',
								column: item('Note'),
								must: "'In stock' = 0",
								help: 'Where the last ones went.'
							}
						]
					}
				]
			},
			{
				...{ id: 'desk', title: 'The stores desk', stands: 'only as lines of other screens' },
				lines: [
					{
						...{ id: 'desk-1', kind: 'text' },
						text: 'The stores desk is open from 8 to 12. Outside these hours leave a note on the hatch, {me.Name}.'
					}
				]
			},
			{
				...{ id: 'new', title: 'New item', icon: 'add', stands: 'by link only' },
				lines: [
					{ id: 'new-0', kind: 'heading', text: 'New item' },
					{
						...{ id: 'new-1', kind: 'form', table: stock, columns: [], thanks: 'It is on the shelf.' },
						lines: [
							{ id: 'new-2', kind: 'entry', column: item('Item'), sample: 'Bow shackle 13 mm' },
							{ id: 'new-3', kind: 'entry', column: item('Kind'), stands: 'beside the one before' },
							{ id: 'new-4', kind: 'entry', column: item('Harbour'), starts: 'me.Harbour' },
							{
								...{ id: 'new-5', kind: 'entry', column: item('Shelf'), remembers: 'what was sent last' },
								stands: 'beside the one before'
							},
							{ id: 'new-6', kind: 'entry', column: item('In stock'), starts: '0' },
							{ id: 'new-7', kind: 'entry', column: item('Least'), stands: 'beside the one before' },
							{ id: 'new-8', kind: 'entry', column: item('Price'), stands: 'beside the one before' }
						]
					}
				]
			}
		],
		routines: shelfRoutines({ stock, item, harbours }),
		signoffs: []
	}
}
