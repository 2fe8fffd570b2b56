/** What happens by itself in the demo's apps, and what two of their buttons do. */
import type { AppInput } from '../src/lib/core/app/document.ts'
import type { Columns, MooringTables } from './mooring-screens.ts'
import { ROLE_IDS } from './tables.ts'

type RoutineInput = AppInput['routines'][number]

export function mooringRoutines({
	moorings,
	mooring,
	inspections,
	inspection,
	harbours,
	work,
	order
}: MooringTables): RoutineInput[] {
	return [
		{
			id: 'looked',
			name: 'Looked at today',
			start: { kind: 'button', table: moorings },
			steps: [{ id: 'looked-1', kind: 'set', column: mooring('Last look'), formula: 'TODAY()' }]
		},
		{
			...{ id: 'order', name: 'Order new tackle', start: { kind: 'button', table: moorings } },
			steps: [
				{
					...{ id: 'order-1', kind: 'add', table: work },
					lines: [
						{ id: 'order-2', kind: 'link', column: order('Mooring') },
						{ id: 'order-3', kind: 'cell', column: order('What'), formula: '"New tackle for " & Code' },
						{ id: 'order-4', kind: 'cell', column: order('State'), formula: '"Raised"' }
					]
				},
				{ id: 'order-5', kind: 'say', words: 'Raised: new tackle for {Code}. Give the work order a diver and a day.' },
				{ id: 'order-6', kind: 'open', screen: 'order', on: 'the row that was added' }
			]
		},
		{
			...{ id: 'paper', name: 'Inspection on paper', start: { kind: 'button', table: inspections } },
			steps: [
				{ id: 'paper-0', kind: 'say', words: 'The sheet is on its way: it will stand under Notices.' },
				{
					...{ id: 'paper-1', kind: 'document', to: 'me', subject: 'Inspection of {Mooring} on {Date}' },
					...{ body: 'The sheet as PDF.', opens: 'inspection' },
					lines: [
						{
							...{ id: 'paper-2', kind: 'values' },
							columns: ['Mooring', 'Date', 'Diver', 'Verdict', 'Chain read', 'Findings'].map(inspection)
						},
						{ id: 'paper-3', kind: 'words', text: '{Remark}' },
						{ id: 'paper-4', kind: 'picture', column: inspection('Photo') },
						{ id: 'paper-5', kind: 'heading', text: 'Earlier inspections' },
						{
							...{ id: 'paper-6', kind: 'list', table: inspections },
							where: 'Mooring = this.Mooring and Date < this.Date',
							sort: [{ column: inspection('Date'), descending: true }],
							columns: ['Date', 'Diver', 'Verdict', 'Chain read'].map(inspection)
						},
						{ id: 'paper-7', kind: 'heading', text: 'Signed' },
						{ id: 'paper-8', kind: 'picture', column: inspection('Signed') }
					]
				}
			]
		},
		{
			id: 'replace',
			name: 'Tell the master what to replace',
			start: { kind: 'rows', table: inspections, when: 'added', where: 'Verdict = "Replace"' },
			steps: [
				{
					id: 'replace-1',
					kind: 'send',
					to: 'Mooring.Harbour.Master',
					subject: 'Replace tackle at {Mooring}',
					body: '{Mooring} was inspected on {Date}: {Verdict}.\n\n{Remark}',
					opens: 'inspection'
				},
				{ id: 'replace-2', kind: 'wait', many: 2, span: 'working days' },
				{
					...{ id: 'replace-3', kind: 'if', where: 'COUNT(FILTER(Mooring.work; State <> "Done")) = 0' },
					lines: [
						{
							id: 'replace-4',
							kind: 'send',
							to: 'Mooring.Harbour.Master',
							subject: 'Still to be ordered: tackle for {Mooring}',
							body: 'Two working days ago {Mooring} was found to need new tackle, and no work order is open for it yet.',
							opens: 'inspection'
						}
					]
				}
			]
		},
		{
			...{ id: 'went', name: 'How did it go?', start: { kind: 'comes', table: work, where: 'State = "Under way"' } },
			steps: [
				{
					...{ id: 'went-1', kind: 'ask', to: "'Given to'", columns: ['State', 'Hours', 'Note'].map(order) },
					...{ subject: '{What} at {Mooring}: how did it go?', body: 'Say how far it is and what you found.' },
					...{ remind: { many: 2, span: 'working days' }, ends: { many: 10, span: 'working days' } },
					lines: [
						{
							id: 'went-2',
							kind: 'send',
							to: 'Mooring.Harbour.Master',
							subject: '{What} at {Mooring}: {State}',
							body: "{'Given to'} says: {Note}\n\nHours: {Hours}",
							opens: 'order'
						}
					]
				},
				{
					...{ id: 'went-3', kind: 'else' },
					lines: [
						{
							id: 'went-4',
							kind: 'send',
							to: 'Mooring.Harbour.Master',
							subject: 'No word of {What} at {Mooring}',
							body: "{'Given to'} was asked how it went, and has not said in ten working days.",
							opens: 'order'
						}
					]
				}
			]
		},
		{
			id: 'due',
			name: 'Due in a week',
			start: {
				...{ kind: 'due', table: moorings, many: 7, side: 'before', column: mooring('Next due'), at: '08:00' },
				where: ''
			},
			steps: [
				{
					id: 'due-1',
					kind: 'send',
					to: 'Harbour.Master',
					subject: '{Code} is due on {Next due}',
					body: '{Code}, {Type}, was looked at last on {Last look}. It is due within a week.',
					opens: 'sheet'
				}
			]
		},
		{
			id: 'day',
			name: 'The day at each harbour',
			start: { kind: 'clock', days: 'every working day', at: '17:00', missed: 'not at all' },
			steps: [
				{
					...{ id: 'day-1', kind: 'each', table: harbours, where: 'not ISBLANK(Master)' },
					lines: [
						{
							...{ id: 'day-2', kind: 'report', to: 'Master', table: work },
							where: 'Mooring.Harbour = this and State <> "Done" and Day <= TODAY() + 1',
							sort: [{ column: order('Day'), descending: false }],
							columns: ['What', 'Mooring', 'State', 'Given to', 'Day', 'Hours'].map(order),
							...{ none: 'there are none', opens: 'work' },
							subject: 'The day at {Name}',
							body: `{COUNT(FILTER(moorings; 'Last look' = TODAY()))} moorings were looked at today. {COUNT(FILTER(moorings; 'Next due' < TODAY()))} are past due, and {COUNT(FILTER(moorings; 'Next due' = TODAY() + 1))} fall due tomorrow. What is under way, late or planned for tomorrow:`
						}
					]
				}
			]
		}
	]
}

export interface ShelfTables {
	readonly stock: number
	readonly item: Columns
	readonly harbours: number
}

export function shelfRoutines({ stock, item, harbours }: ShelfTables): RoutineInput[] {
	return [
		{
			...{ id: 'counted', name: 'Counted today', start: { kind: 'button', table: stock } },
			steps: [{ id: 'counted-1', kind: 'set', column: item('Counted'), formula: 'TODAY()' }]
		},
		{
			...{ id: 'took', name: 'One was taken', start: { kind: 'scan', table: stock, column: item('Barcode') } },
			steps: [
				{
					...{ id: 'took-1', kind: 'if', where: "'In stock' > 0" },
					lines: [
						{ id: 'took-2', kind: 'set', column: item('In stock'), formula: "'In stock' - 1" },
						{ id: 'took-3', kind: 'say', words: "{Item}: {'In stock'} left on shelf {Shelf}." }
					]
				},
				{
					...{ id: 'took-4', kind: 'else' },
					lines: [{ id: 'took-5', kind: 'say', words: 'None of {Item} should be left on shelf {Shelf}. Count it.' }]
				}
			]
		},
		{
			...{ id: 'pack', name: 'Order a pack from the chandlery', start: { kind: 'button', table: stock } },
			steps: [
				{ id: 'pack-1', kind: 'set', column: item('On order'), formula: 'TRUE' },
				{ id: 'pack-2', kind: 'say', words: "{Item} is being ordered: one pack of {'Sold in'}." },
				{
					...{ id: 'pack-3', kind: 'call', program: 'Chandlery', path: '/orders' },
					lines: [
						{ id: 'pack-4', kind: 'give', value: 'Barcode', as: 'code' },
						{ id: 'pack-5', kind: 'give', value: "'Sold in'", as: 'count' },
						{ id: 'pack-6', kind: 'give', value: 'Harbour.Name', as: 'to' }
					]
				}
			]
		},
		{
			...{ id: 'coming', name: 'Goods are on their way', start: { kind: 'request', from: 'Chandlery' } },
			steps: [
				{ id: 'coming-1', kind: 'take', what: 'a text', holds: 'code' },
				{ id: 'coming-2', kind: 'take', what: 'a number', holds: 'count' },
				{ id: 'coming-3', kind: 'take', what: 'a date', holds: 'day' },
				{
					...{ id: 'coming-4', kind: 'each', table: stock, where: 'Barcode = here.code' },
					lines: [
						{
							...{ id: 'coming-5', kind: 'send', to: 'Harbour.Storekeeper', opens: 'item' },
							subject: '{here.count} of {Item} come on {here.day}',
							body: "The chandlery sends them to {Harbour}. {'In stock'} lie on shelf {Shelf} now."
						}
					]
				}
			]
		},
		{
			...{ id: 'low', name: 'Low stock', start: { kind: 'comes', table: stock, where: "'In stock' < Least" } },
			steps: [
				{
					id: 'low-1',
					kind: 'send',
					to: 'Harbour.Storekeeper',
					subject: '{Item} is running low at {Harbour}',
					body: "{'In stock'} left on shelf {Shelf}, where {Least} should lie. It is sold in packs of {'Sold in'}.",
					opens: 'item'
				}
			]
		},
		{
			id: 'sheet',
			name: 'Stock sheet',
			start: { kind: 'clock', days: 'last working day of each month', at: '17:00', missed: 'once for all' },
			steps: [
				{
					...{ id: 'sheet-1', kind: 'each', table: harbours, where: 'not ISBLANK(Storekeeper)' },
					lines: [
						{
							...{ id: 'sheet-2', kind: 'report', to: 'Storekeeper', table: stock, where: 'Harbour = this' },
							sort: [{ column: item('Item'), descending: false }],
							columns: ['Item', 'Shelf', 'In stock', 'Least', 'Worth'].map(item),
							...{ attached: 'an XLSX file', opens: 'stock' },
							subject: 'Stock sheet of {Name}',
							body: "{COUNT(stock)} items lie on the shelves, together worth {SUM(stock.Worth)}. {COUNT(FILTER(stock; 'In stock' < Least))} of them are under their least."
						}
					]
				}
			]
		}
	]
}

export interface QuayTables {
	readonly people: number
	readonly visits: number
	readonly visit: Columns
}

export function quayRoutines({ people, visits, visit }: QuayTables): RoutineInput[] {
	return [
		{
			id: 'week',
			name: 'Visits of the week',
			start: { kind: 'clock', days: 'every Monday', at: '12:00', missed: 'once for all' },
			steps: [
				{
					...{ id: 'week-1', kind: 'each', table: people, where: '', role: ROLE_IDS['Trust manager'] },
					lines: [
						{
							...{ id: 'week-2', kind: 'report', to: 'them', table: visits },
							...{ where: 'Came >= TODAY() - 7 and Came < TODAY()', sort: [] },
							...{ by: { column: visit('Why'), step: null }, columns: ['Nights', 'Fee'].map(visit) },
							...{ none: 'there are none', opens: 'visits' },
							subject: 'Visits of the week before {TODAY()}',
							body: 'Why boats called at the four harbours, and what they paid:'
						}
					]
				}
			]
		}
	]
}
