/** The small harbour that access scenarios are set in: its tables, and what people, lines and grants are in it. */
import type { Scenario } from '../check-values/access.ts'
import type { Random } from '../../demo/random.ts'

export type Cell = string | number | boolean | null

export type Row = { readonly id: string } & Readonly<Record<string, Cell>>

export type Rows = Readonly<Record<string, readonly Row[]>>

/** A condition, as the formula's text and as what it means for a row. */
export interface Condition {
	readonly text: string
	readonly holds: (row: Row, world: World, me: Person) => boolean
}

export interface World {
	readonly rows: Rows
	readonly today: string
}

export interface Person {
	readonly email: string
	readonly attrs: Readonly<Record<string, Cell>>
	readonly roles: string[]
}

export interface Line {
	readonly role: string
	readonly table: string
	readonly verbs: ('see' | 'add' | 'change' | 'remove')[]
	readonly columns: 'all' | { only?: string[]; except?: string[] }
	readonly where: Condition
	readonly after: Condition | undefined
}

export interface Grant {
	readonly email: string
	readonly table: string
	readonly id: string
	readonly columns: string[]
}

export const TODAY = '2026-11-24'

export const NAMES = ['Varrow Quay', 'Ness Hythe', 'Gull Stair', 'Orrin Slip']

export const STATES = ['sound', 'watch', 'replace']

export const COLUMNS: Readonly<Record<string, Scenario['tables'][string]['columns']>> = {
	harbours: [
		{ name: 'name', type: 'text' },
		{ name: 'berths', type: 'number' },
		{ name: 'boats', type: 'computed', formula: 'COUNT(moorings)' },
		{ name: 'worth', type: 'computed', formula: 'SUM(moorings.amount)' }
	],
	moorings: [
		{ name: 'code', type: 'text' },
		{ name: 'harbour', type: 'reference', to: 'harbours' },
		{ name: 'depth', type: 'number' },
		{ name: 'state', type: 'choice', choices: STATES },
		{ name: 'due', type: 'date' },
		{ name: 'urgent', type: 'yesno' },
		{ name: 'amount', type: 'number' },
		{ name: 'deep', type: 'computed', formula: 'depth > 10' },
		{ name: 'alarm', type: 'computed', formula: 'deep and urgent' },
		{ name: 'place', type: 'computed', formula: 'harbour.name' },
		{ name: 'dived', type: 'computed', formula: 'SUM(dives.minutes)' },
		{ name: 'long dives', type: 'computed', formula: 'COUNT(FILTER(dives; minutes >= 30))' }
	],
	dives: [
		{ name: 'title', type: 'text' },
		{ name: 'mooring', type: 'reference', to: 'moorings' },
		{ name: 'minutes', type: 'number' },
		{ name: 'diver', type: 'text' },
		{ name: 'place', type: 'computed', formula: 'mooring.harbour.name' },
		{ name: 'how deep', type: 'computed', formula: 'mooring.depth' }
	]
}

export const TABLES = Object.keys(COLUMNS)

export const ROLES = ['clerk', 'diver', 'master', 'visitor'] as const

export const find = (world: World, table: string, id: Cell | undefined) =>
	world.rows[table]?.find((row) => row.id === id)

/** A whole number, both ends among them. */
export function between(random: Random, least: number, most: number): number {
	return least + random.below(most - least + 1)
}
