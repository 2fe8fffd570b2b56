/** What has to be done at the moorings: work orders, from being raised to being done. */
import type { ScreenInput } from '../src/lib/core/app/document.ts'
import type { NewColumn } from '../src/lib/server/structure/tables.ts'
import type { Columns, MooringTables } from './mooring-screens.ts'
import type { Random } from './random.ts'
import { ROLE_IDS } from './tables.ts'

type Line = NonNullable<ScreenInput['lines']>[number]

const STATES = ['Raised', 'Planned', 'Under way', 'Waiting for parts', 'Done'] as const

export const workColumns = (moorings: number, people: number): NewColumn[] => [
	{ name: 'What', type: 'text', required: true },
	{ name: 'Mooring', type: 'reference', to: moorings, required: true, reverseName: 'work' },
	{ name: 'State', type: 'choice', choices: [...STATES], required: true },
	{ name: 'Given to', type: 'reference', to: people, reverseName: 'work' },
	{ name: 'Day', type: 'date' },
	{ name: 'Hours', type: 'decimal', places: 1, unit: 'h' },
	{ name: 'Note', type: 'long text' },
	{ name: 'Until', type: 'date' },
	{ name: 'Place', type: 'place' },
	{ name: 'Call', type: 'whole number' }
]

/** What must be known before an order goes on. */
export const WORK_CHECKS = [
	{ formula: 'State = "Raised" or not ISBLANK(Day)', message: 'Give the order a day first.' },
	{ formula: 'ISBLANK(Until) or Until >= Day', message: 'It cannot end before it begins.' },
	{ formula: 'State <> "Under way" or not ISBLANK(Given to)', message: 'Name a diver first.' }
]

export function workLines(order: Columns) {
	const all = { kind: 'all' as const }
	const own = 'Mooring.Harbour = me.Harbour'
	return [
		{
			role: ROLE_IDS['Harbour masters'],
			verbs: ['see' as const, 'add' as const, 'change' as const],
			where: own,
			columns: all
		},
		{ role: ROLE_IDS.Divers, verbs: ['see' as const], where: own, columns: all },
		{
			role: ROLE_IDS.Divers,
			verbs: ['change' as const],
			where: "'Given to' = me",
			columns: { kind: 'only' as const, columns: [order('State'), order('Hours'), order('Note')] }
		},
		{ role: ROLE_IDS['Trust manager'], verbs: ['see' as const], where: '', columns: all }
	]
}

const JOBS: readonly (readonly [string, number])[] = [
	['New riser chain', 3],
	['New shackle and pin', 1.5],
	['Reset dragged sinker', 4],
	['New mousing wire', 1],
	['Free the swivel', 1.5],
	['Repaint number', 0.5],
	['New anode', 0.5],
	['New ground chain', 3.5],
	['Lift and look', 4],
	['New pick-up rope', 1]
]

export interface WorkRow {
	/** Which of the moorings, counted from 0. */
	readonly mooring: number
	readonly diver: string | null
	readonly cells: Readonly<Record<string, string | number>>
}

/** The boat calls at so many of a week in an order of their own; the others are still to be put in. */
const CALLED_AT = 5

/** In which order the boat calls at what is to be done within a week, harbour by harbour from west to east. @returns by the place of the order in `orders` */
export function callsOf(
	orders: readonly { readonly harbour: string; readonly place: string; readonly cells: WorkRow['cells'] }[],
	today: string
): ReadonlyMap<number, number> {
	const until = new Date(Date.parse(today) + 7 * 86_400_000).toISOString().slice(0, 10)
	const open = orders.flatMap(({ harbour, place, cells }, i) => {
		const day = String(cells['Day'] ?? '')
		return day >= today && day < until && cells['State'] !== 'Done'
			? [{ i, harbour, east: Number(place.split(', ')[1]) }]
			: []
	})
	const inOrder = open.toSorted((a, b) => a.east - b.east)
	const turns = inOrder.map(({ i, harbour }, at) => {
		const before = inOrder.slice(0, at).filter((each) => each.harbour === harbour).length
		return [i, before + 1] as const
	})
	return new Map(turns.filter(([, turn]) => turn <= CALLED_AT))
}

/** @param moorings the harbour of each; `divers`: those of a harbour, by name; `today`: a date as text */
export function workRows(
	random: Random,
	moorings: readonly string[],
	divers: (harbour: string) => readonly string[],
	today: string
): WorkRow[] {
	return Array.from({ length: 72 }, () => {
		const mooring = random.below(moorings.length)
		const [what, hours] = random.pick(JOBS)
		const state = random.pick([
			'Raised',
			'Planned',
			'Planned',
			'Under way',
			'Waiting for parts',
			'Done',
			'Done'
		] as const)
		const names = divers(moorings[mooring] ?? '')
		const isGiven = names.length > 0 && (state === 'Under way' || state === 'Done' || random.chance(0.6))
		const apart = state === 'Done' ? -1 - random.below(25) : random.below(16) - 3
		const dayAfter = (days: number) => new Date(Date.parse(today) + days * 86_400_000).toISOString().slice(0, 10)
		return {
			mooring,
			// Nobody is under way without a name.
			diver: isGiven ? random.pick(names) : null,
			cells: {
				...{ What: what, Hours: hours, State: state === 'Under way' && !isGiven ? 'Planned' : state },
				...(state === 'Raised' ? {} : { Day: dayAfter(apart) }),
				// What takes longer than a tide is done over several.
				...(state === 'Raised' || hours < 3 ? {} : { Until: dayAfter(apart + Math.round(hours) - 2) })
			}
		}
	})
}

/** The board of what is under way, the boat's calls of the week, and the sheet of one order. */
export function workScreens(table: number, order: Columns, ground: MooringTables['ground']): ScreenInput[] {
	return [
		{
			...{ id: 'calls', title: "The week's calls", label: 'Calls', icon: 'boat' },
			who: [ROLE_IDS.Divers, ROLE_IDS['Harbour masters'], ROLE_IDS.Builders],
			lines: [
				{ id: 'calls-1', kind: 'heading', text: 'Where the boat calls this week' },
				{
					...{ id: 'calls-2', kind: 'map', table, where: THIS_WEEK, at: order('Place'), order: order('Call'), ground },
					...{ columns: ['Mooring', 'What', 'Day'].map(order), opens: 'order' },
					lines: [
						{
							id: 'calls-3',
							kind: 'mark',
							word: 'waiting for parts',
							tone: 'look',
							where: 'State = "Waiting for parts"'
						}
					]
				}
			]
		},
		{
			...{ id: 'work', title: 'Work', icon: 'spanner' },
			who: [ROLE_IDS['Harbour masters'], ROLE_IDS['Trust manager'], ROLE_IDS.Builders],
			lines: [
				{ id: 'work-1', kind: 'heading', text: 'Work orders' },
				{
					...{ id: 'work-5', kind: 'tabs' },
					lines: [
						{ id: 'work-6', kind: 'tab', title: 'How far it is', lines: [onBoard(table, order)] },
						{ id: 'work-7', kind: 'tab', title: 'When', lines: [onDays(table, order)] }
					]
				}
			]
		},
		{
			...{ id: 'raise', title: 'New work order', stands: 'by link only' },
			who: [ROLE_IDS['Harbour masters'], ROLE_IDS.Builders],
			lines: [
				{ id: 'raise-1', kind: 'hold', what: 'a date', rows: null, holds: 'day', starts: '' },
				{ id: 'raise-2', kind: 'heading', text: 'New work order' },
				{
					...{ id: 'raise-3', kind: 'form', table, columns: ['What', 'Mooring', 'Hours', 'Note'].map(order) },
					...{ thanks: 'It stands on its day.', opens: 'work' },
					lines: [
						{ id: 'raise-4', kind: 'entry', column: order('Day'), starts: 'here.day' },
						{ id: 'raise-5', kind: 'entry', column: order('State'), starts: '"Raised"' }
					]
				}
			]
		},
		{
			...{ id: 'order', title: 'Work order' },
			lines: [
				{
					...{ id: 'order-1', kind: 'record', table },
					columns: ['Mooring', 'State', 'Given to', 'Day', 'Until', 'Hours', 'Note'].map(order)
				}
			]
		}
	]
}

const THIS_WEEK = 'State <> "Done" and Day >= TODAY() and Day < TODAY() + 7'
const PAST = 'State <> "Done" and Day < TODAY()'

function onBoard(table: number, order: Columns): Line {
	return {
		...{ id: 'work-2', kind: 'board', table, by: order('State'), sums: order('Hours'), opens: 'order' },
		where: 'State <> "Done" or Day >= TODAY() - 30',
		columns: ['What', 'Mooring', 'Given to', 'Day', 'Hours'].map(order),
		sort: [{ column: order('Day'), descending: false }],
		lines: [
			{ id: 'work-3', kind: 'mark', word: 'past its day', tone: 'past', where: PAST },
			{ id: 'work-4', kind: 'mark', word: 'done', tone: 'finished', where: 'State = "Done"' }
		]
	}
}

function onDays(table: number, order: Columns): Line {
	return {
		...{ id: 'work-8', kind: 'calendar', table, by: order('Day'), until: order('Until'), opens: 'order', where: '' },
		adds: 'raise',
		columns: ['What', 'Mooring', 'Given to', 'State'].map(order),
		lines: [
			{ id: 'work-9', kind: 'mark', word: 'past its day', tone: 'past', where: PAST },
			{ id: 'work-10', kind: 'mark', word: 'done', tone: 'finished', where: 'State = "Done"' }
		]
	}
}
