/** The trust's tables, roles and lines of access, as its builder made them. */
import type { NewColumn } from '../src/lib/server/structure/tables.ts'
import type { LineEntry, WorkspaceDocument } from '../src/lib/core/workspace/document.ts'
import { BUILDER, EVERYONE, STEWARD } from '../src/lib/server/rights/system-roles.ts'
import { PEOPLE as PEOPLE_TABLE } from '../src/lib/server/structure/make.ts'
import type { DemoRole } from './people.ts'

export const ROLE_IDS: Readonly<Record<DemoRole, number>> = {
	Builders: BUILDER,
	Stewards: STEWARD,
	'Harbour masters': 100,
	Divers: 101,
	'Berth clerks': 102,
	'Stores keepers': 103,
	Finance: 104,
	'Trust manager': 105,
	'Visiting crews': 106
}

export const DEMO_ROLES: WorkspaceDocument['roles'] = Object.entries(ROLE_IDS)
	.filter(([, id]) => id >= 100)
	.map(([name, id]) => ({ id, name, includes: [] }))

export const HARBOUR_COLUMNS: NewColumn[] = [
	{ name: 'Name', type: 'text', required: true, unique: true },
	{ name: 'Master', type: 'reference', to: PEOPLE_TABLE, reverseName: 'harbours led' },
	{ name: 'Controller', type: 'reference', to: PEOPLE_TABLE, reverseName: 'harbours controlled' }
]

export const FINDINGS = ['Worn shackle', 'Chafed riser', 'Stiff swivel', 'Dragged sinker', 'No mousing']
export const VERDICTS = ['Sound', 'Watch', 'Replace']

export function inspectionColumns(moorings: number): NewColumn[] {
	return [
		{ name: 'Title', type: 'text' },
		{ name: 'Mooring', type: 'reference', to: moorings, required: true },
		{ name: 'Date', type: 'date', required: true },
		{ name: 'Diver', type: 'reference', to: PEOPLE_TABLE, reverseName: 'dives' },
		{ name: 'Verdict', type: 'choice', choices: VERDICTS, required: true },
		{ name: 'Chain read', type: 'decimal', places: 1, unit: 'mm' },
		{ name: 'Findings', type: 'several choices', choices: FINDINGS },
		{ name: 'Remark', type: 'long text' },
		{ name: 'Photo', type: 'photo' },
		{ name: 'Signed', type: 'signature' }
	]
}

export const COST_CODES = [
	'4110 Chain and tackle',
	'4120 Lifting and survey',
	'4210 Paint and buoys',
	'4300 Workboat',
	'4900 Other'
]

export function spendColumns(harbours: number): NewColumn[] {
	return [
		{ name: 'What for', type: 'text', required: true },
		{ name: 'Harbour', type: 'reference', to: harbours, required: true },
		{ name: 'Amount', type: 'money', unit: '£', required: true },
		{ name: 'Cost code', type: 'choice', choices: COST_CODES },
		{ name: 'Needed by', type: 'date' },
		{ name: 'Why', type: 'long text' },
		{ name: 'Size', type: 'computed', formula: 'IF(Amount > 5000; "large"; IF(Amount > 500; "medium"; "small"))' }
	]
}

export const SPEND_LINE_COLUMNS = (requests: number): NewColumn[] => [
	{ name: 'Item', type: 'text', required: true },
	{ name: 'Request', type: 'reference', to: requests, required: true, reverseName: 'items' },
	{ name: 'Quantity', type: 'whole number' },
	{ name: 'Each', type: 'money', unit: '£' },
	{ name: 'Total', type: 'computed', formula: 'Quantity * Each' }
]

type Line = Omit<LineEntry, 'table' | 'id'>

const all = { kind: 'all' as const }

export function harbourLines(): Line[] {
	return [{ role: EVERYONE, verbs: ['see'], where: '', columns: all }]
}

/** `columns`: the register's columns by name. */
export function mooringLines(columns: ReadonlyMap<string, number>): Line[] {
	const ids = (...names: string[]) => names.map((name) => columns.get(name) ?? 0)
	return [
		{ role: ROLE_IDS['Harbour masters'], verbs: ['see', 'add', 'change'], where: 'Harbour = me.Harbour', columns: all },
		{
			role: ROLE_IDS.Divers,
			verbs: ['see'],
			where: 'Harbour = me.Harbour',
			columns: { kind: 'except', columns: ids('Holder phone', 'Arrears') }
		},
		{
			role: ROLE_IDS.Divers,
			verbs: ['change'],
			where: 'Harbour = me.Harbour',
			columns: { kind: 'only', columns: ids('Last look', 'Chain read', 'Note') }
		},
		{ role: ROLE_IDS['Berth clerks'], verbs: ['see'], where: '', columns: { kind: 'except', columns: ids('Arrears') } },
		{
			role: ROLE_IDS['Berth clerks'],
			verbs: ['change'],
			where: 'Harbour = me.Harbour',
			columns: { kind: 'only', columns: ids('Holder', 'Holder phone') }
		},
		{
			role: ROLE_IDS.Finance,
			verbs: ['see'],
			where: 'Arrears > 0',
			columns: { kind: 'only', columns: ids('Code', 'Harbour', 'Holder', 'Holder phone', 'Arrears') }
		},
		{ role: ROLE_IDS['Trust manager'], verbs: ['see'], where: '', columns: all }
	]
}

export function inspectionLines(): Line[] {
	return [
		{ role: ROLE_IDS.Divers, verbs: ['see', 'add'], where: 'Mooring.Harbour = me.Harbour', columns: all },
		{
			role: ROLE_IDS['Harbour masters'],
			verbs: ['see', 'change', 'remove'],
			where: 'Mooring.Harbour = me.Harbour',
			columns: all
		},
		{ role: ROLE_IDS['Trust manager'], verbs: ['see'], where: '', columns: all }
	]
}

export function spendLines(): Line[] {
	return [
		{ role: ROLE_IDS['Harbour masters'], verbs: ['see', 'add', 'change'], where: 'Harbour = me.Harbour', columns: all },
		{ role: ROLE_IDS.Divers, verbs: ['see', 'add'], where: 'Harbour = me.Harbour', columns: all },
		{ role: ROLE_IDS['Berth clerks'], verbs: ['see', 'add'], where: 'Harbour = me.Harbour', columns: all },
		{ role: ROLE_IDS['Stores keepers'], verbs: ['see', 'add'], where: 'Harbour = me.Harbour', columns: all },
		{ role: ROLE_IDS['Trust manager'], verbs: ['see'], where: '', columns: all }
	]
}

export function spendItemLines(): Line[] {
	return [
		{
			role: ROLE_IDS['Harbour masters'],
			verbs: ['see', 'add', 'change', 'remove'],
			where: 'Request.Harbour = me.Harbour',
			columns: all
		},
		{ role: ROLE_IDS['Stores keepers'], verbs: ['see', 'add'], where: 'Request.Harbour = me.Harbour', columns: all }
	]
}

/** Two who are nobody here, at the stand-in for a provider: one it vouches for, one whose address it does not know to be theirs. */
export const STRANGERS = [
	{ subject: 'x1', name: 'Hedda Lisle', email: 'hedda.lisle@brig.example', vouched: true },
	{ subject: 'x2', name: 'Corin Abel', email: 'corin.abel@varrow.example', vouched: false }
]
