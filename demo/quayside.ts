/** Visiting crews who check themselves in on the quay: the berths they lie at, their visits, and the app on the tablet there. */
import type { AppFile } from '../src/lib/core/document/parts.ts'
import { APP_FORMAT, type AppInput } from '../src/lib/core/app/document.ts'
import type { WorkspaceDocument } from '../src/lib/core/workspace/document.ts'
import type { NewColumn } from '../src/lib/server/structure/tables.ts'
import type { Columns } from './mooring-screens.ts'
import type { Random } from './random.ts'
import { quayRoutines } from './routines.ts'
import { remarkScreens } from './remarks.ts'
import { ROLE_IDS } from './tables.ts'

const REASONS = ['A night’s rest', 'Shelter', 'Stores and water', 'Repair', 'Change of crew']

/** Common practice: a price by the metre and night. */
export const berthColumns = (harbours: number): NewColumn[] => [
	{ name: 'Berth', type: 'text', required: true },
	{ name: 'Harbour', type: 'reference', to: harbours, required: true, reverseName: 'berths' },
	{ name: 'Longest', type: 'decimal', places: 1, unit: 'm' },
	{ name: 'A metre and night', type: 'money', unit: '£' }
]

/** Crews see no visit but their own: that a berth is taken counts every one, as its keeper vouches. */
export const BERTH_TAKEN = {
	...{ name: 'taken', type: 'computed', condition: true },
	formula: 'COUNT(FILTER(visits; Came <= TODAY() AND Leaves > TODAY())) > 0'
} as const satisfies NewColumn

/** The document with a keeper's word for a column of that name. */
export function vouching(document: WorkspaceDocument, name: string): WorkspaceDocument {
	const tables = document.tables.map((table) => ({
		...table,
		columns: table.columns.map((column) => (column.name === name ? { ...column, vouched: true } : column))
	}))
	return { ...document, tables }
}

export const visitColumns = (harbours: number, berths: number): NewColumn[] => [
	{ name: 'Boat', type: 'text', required: true },
	{ name: 'Harbour', type: 'reference', to: harbours, required: true, reverseName: 'visits' },
	{ name: 'Berth', type: 'reference', to: berths, required: true, reverseName: 'visits' },
	{ name: 'Length', type: 'decimal', places: 1, unit: 'm', required: true },
	{ name: 'Nights', type: 'whole number', required: true },
	{ name: 'Why', type: 'choice', choices: REASONS },
	{ name: 'Came', type: 'date', required: true },
	{ name: 'Gone', type: 'date and time' },
	{ name: 'Left as', type: 'whole number' },
	{ name: 'Leaves', type: 'computed', formula: 'Came + Nights' },
	{ name: 'Fee', type: 'computed', formula: "Length * Nights * Berth.'A metre and night'" },
	{ name: 'here now', type: 'computed', formula: 'Came <= TODAY() AND Leaves > TODAY()', condition: true }
]

export function berthLines() {
	const all = { kind: 'all' as const }
	return (['Visiting crews', 'Berth clerks', 'Harbour masters', 'Trust manager'] as const).map((role) => {
		return { role: ROLE_IDS[role], verbs: ['see' as const], where: '', columns: all }
	})
}

/** Crews see what the harbours are called, and not who looks after them. */
export function harbourNameLine(harbour: Columns) {
	const columns = { kind: 'only' as const, columns: [harbour('Name')] }
	return [{ role: ROLE_IDS['Visiting crews'], verbs: ['see' as const], where: '', columns }]
}

/** Crews add their visit and see nobody's. */
export function visitLines() {
	const all = { kind: 'all' as const }
	const own = 'Harbour = me.Harbour'
	return [
		{ role: ROLE_IDS['Visiting crews'], verbs: ['add' as const], where: '', columns: all },
		{
			role: ROLE_IDS['Berth clerks'],
			verbs: ['see' as const, 'add' as const, 'change' as const],
			where: own,
			columns: all
		},
		{ role: ROLE_IDS['Harbour masters'], verbs: ['see' as const, 'change' as const], where: own, columns: all },
		{ role: ROLE_IDS['Trust manager'], verbs: ['see' as const], where: '', columns: all }
	]
}

export interface BerthRow extends Readonly<Record<string, string | number>> {
	/** By its name. */
	readonly harbour: string
}

export function berthRows(harbours: readonly string[]): BerthRow[] {
	return harbours.flatMap((harbour, h) =>
		Array.from({ length: 12 }, (_each, i) => ({
			...{ harbour, Berth: `${harbour}, pontoon ${'ABCD'[h]} ${i + 1}` },
			...{ Longest: 8 + (i % 4) * 2, 'A metre and night': [2, 1.8, 1.6, 2.2][h] ?? 2 }
		}))
	)
}

const BOATS = ['Skerry Lark', 'Merganser', 'Blue Ensign', 'Turnstone', 'Half Tide', 'Wren of Orrin', 'Kestrel', 'Sandpiper', 'Petty Officer', 'Morning Slack', 'Whimbrel', 'Long Reach'] // prettier-ignore

export interface VisitRow {
	readonly berth: number
	readonly daysAgo: number
	readonly cells: Readonly<Record<string, string | number>>
}

/** 1,200 visits over three years, most of them in summer. `berths`: as many as there are; each is named by its place. */
export function visitRows(random: Random, berths: readonly BerthRow[], today: string): VisitRow[] {
	const visits = Array.from({ length: 1_200 }, (_each, i) => {
		const berth = random.below(berths.length)
		const daysAgo = i < 14 ? random.below(3) : Math.floor(random.next() * 1_000)
		const longest = Number(berths[berth]?.['Longest'] ?? 10)
		const length = Math.round(10 * (6 + random.next() * (longest - 6))) / 10
		const boat = `${random.pick(BOATS)}${random.chance(0.3) ? ` ${2 + random.below(3)}` : ''}`
		const came = new Date(Date.parse(today) - daysAgo * 86_400_000).toISOString().slice(0, 10)
		const cells = { Boat: boat, Length: length, Nights: 1 + random.below(5), Why: random.pick(REASONS), Came: came }
		return { berth, daysAgo, cells }
	})
	// In the order in which they came.
	return visits.sort((a, b) => b.daysAgo - a.daysAgo)
}

export interface QuaysideTables {
	readonly people: number
	readonly berths: number
	readonly visits: number
	readonly visit: Columns
	readonly harbours: number
	readonly remarks: number
	readonly remark: Columns
	/** A picture of the pontoons. */
	readonly pontoons: AppFile
}

export function quayside({ people, visits, visit, harbours, pontoons, remarks, remark }: QuaysideTables): AppInput {
	const staff = (['Berth clerks', 'Harbour masters', 'Trust manager'] as const).map((role) => ROLE_IDS[role])
	return {
		format: APP_FORMAT,
		name: 'Quayside',
		about: 'Visiting crews check themselves in, on a tablet at the harbour office',
		colour: 'oxide',
		screens: [
			{
				...{ id: 'start', title: 'Welcome', icon: 'boat', stands: 'by link only', first: [ROLE_IDS['Visiting crews']] },
				lines: [
					{ id: 'start-0', kind: 'hold', what: 'a row', rows: harbours, holds: 'quay' },
					{ id: 'start-1', kind: 'heading', text: 'Welcome to the harbour' },
					{
						...{ id: 'start-6', kind: 'picture', picture: pontoons, width: 520 },
						...{ says: 'Two pontoons from above, boats on both sides', caption: 'Visitors lie on the outer pontoon' }
					},
					{
						...{ id: 'start-2', kind: 'text' },
						text: 'Check in here before you make fast. It takes **two minutes**, and asks for no name.\n\n1. Your boat and her length\n2. How long you stay, and why you called\n3. Where you will lie'
					},
					{
						...{
							id: 'start-3',
							kind: 'button',
							label: 'Check in',
							icon: 'anchor',
							does: { kind: 'open', screen: 'in' }
						},
						lines: [{ id: 'start-4', kind: 'with', value: 'here.quay', as: 'quay' }]
					},
					{
						...{ id: 'start-7', kind: 'button', label: 'Say how it was', icon: 'star' },
						does: { kind: 'open', screen: 'ask' },
						lines: [{ id: 'start-8', kind: 'with', value: 'here.quay', as: 'quay' }]
					},
					{
						...{ id: 'start-5', kind: 'text' },
						text: 'What you type is read by the harbour office alone, and kept until the end of the year.'
					}
				]
			},
			{
				...{ id: 'in', title: 'Check in', icon: 'anchor' },
				lines: [
					{ id: 'in-0', kind: 'hold', what: 'a row', rows: harbours, holds: 'quay' },
					{
						...{ id: 'in-1', kind: 'form', table: visits, columns: [], then: 'shows only that' },
						thanks: "Lie at {Berth}. {Length * Nights * Berth.'A metre and night'} to pay at the office. Fair winds!",
						lines: [
							{
								...{ id: 'in-2', kind: 'page', title: 'Your boat' },
								lines: [
									{ id: 'in-3', kind: 'entry', column: visit('Harbour'), starts: 'here.quay' },
									{ id: 'in-4', kind: 'entry', column: visit('Boat'), sample: 'Skerry Lark' },
									{
										...{
											id: 'in-5',
											kind: 'entry',
											column: visit('Length'),
											sample: '9.8',
											stands: 'beside the one before'
										},
										...{ unless: 'Length >= 2 and Length <= 30', says: 'Boats here are between 2 and 30 metres long.' }
									}
								]
							},
							{
								...{ id: 'in-6', kind: 'page', title: 'Your stay' },
								lines: [
									{
										...{ id: 'in-7', kind: 'entry', column: visit('Nights'), starts: '1' },
										...{ unless: 'Nights >= 1 and Nights <= 28', says: 'A stay is between one and 28 nights.' }
									},
									{
										id: 'in-8',
										kind: 'entry',
										column: visit('Came'),
										starts: 'TODAY()',
										stands: 'beside the one before'
									},
									{ id: 'in-9', kind: 'entry', column: visit('Why') }
								]
							},
							{
								...{ id: 'in-10', kind: 'page', title: 'Where you lie' },
								lines: [
									{
										...{
											id: 'in-11',
											kind: 'entry',
											column: visit('Berth'),
											help: 'Those that are free and long enough for you.'
										},
										from: 'Harbour = this.Harbour and Longest >= this.Length and not taken'
									},
									{ id: 'in-12', kind: 'shown', value: "Length * Nights * Berth.'A metre and night'", label: 'To pay' }
								]
							}
						]
					},
					{ id: 'in-13', kind: 'timer', screen: 'start', seconds: 90, keeps: 'quay', who: [ROLE_IDS['Visiting crews']] }
				]
			},
			{
				...{ id: 'now', title: 'Here now', icon: 'boat', who: staff, first: staff },
				lines: [
					{ id: 'now-1', kind: 'heading', text: 'Visitors who lie here' },
					{ id: 'now-2', kind: 'filter', table: visits, column: visit('Why'), holds: 'why', label: 'Why they called' },
					{
						...{ id: 'now-3', kind: 'list', table: visits, where: 'here now', once: 'Why = here.why', as: 'a table' },
						...{ sort: [{ column: visit('Leaves'), descending: false }], opens: 'visit', totals: [visit('Fee')] },
						columns: ['Boat', 'Berth', 'Length', 'Why', 'Leaves', 'Fee'].map(visit),
						empty: 'No visitor lies here today.',
						lines: [
							{ id: 'now-4', kind: 'mark', word: 'leaves tomorrow', tone: 'look', where: 'Leaves <= TODAY() + 1' }
						]
					}
				]
			},
			{
				...{ id: 'visits', title: 'All visits', icon: 'paper', who: staff },
				lines: [
					{ id: 'visits-1', kind: 'heading', text: 'All visits, latest first' },
					{ id: 'visits-2', kind: 'search', holds: 'boat', label: 'Boat', sample: 'Skerry' },
					{
						...{ id: 'visits-3', kind: 'list', table: visits, where: '', once: 'ISNUMBER(SEARCH(here.boat; Boat))' },
						...{ sort: [{ column: visit('Came'), descending: true }], opens: 'visit' },
						columns: ['Boat', 'Berth', 'Came', 'Nights', 'Fee'].map(visit)
					}
				]
			},
			{
				...{ id: 'visit', title: 'Visit' },
				lines: [
					{
						...{ id: 'visit-1', kind: 'record', table: visits, across: 'in two columns' },
						columns: ['Harbour', 'Berth', 'Length', 'Nights', 'Why', 'Came', 'Leaves', 'Fee', 'Gone'].map(visit)
					},
					{ id: 'visit-2', kind: 'put', table: visits, column: visit('Gone'), label: 'Gone now' },
					{
						...{ id: 'visit-3', kind: 'rating', table: visits, column: visit('Left as'), most: 5 },
						label: 'How the berth was left'
					}
				]
			},
			...remarkScreens(remarks, remark, harbours)
		],
		routines: quayRoutines({ people, visits, visit }),
		signoffs: []
	}
}
