/** The screen on which rows are found: as a list, and as they can be looked at otherwise. */
import type { ChartLine } from '../lines/chart.ts'
import { MOST_LANES } from '../lines/board.ts'
import { MOST_SIGNS } from '../lines/map.ts'
import { printName } from '../../formula/check/rename.ts'
import { proposeIcon } from '../../text/icons.ts'
import type { ScreenInput } from '../document.ts'
import { capitalized, oneOf, withArticle } from '../name-things.ts'
import { closingOf, dueOf, FEW, isDate, knownBy, stateOf, type MadeColumn, type MadeTable } from './classify.ts'
import type { Made, MadeLine } from './made.ts'

const SHOWN = 4
/** Fewer are seen at a glance. */
const LOOKED_FOR_ABOVE = 30
const MOST_FILTERS = 4

export function makeList(made: Made): ScreenInput {
	const { table, ids, newId } = made
	const title = capitalized(table.name)
	const views = [listOf(made), ...boardOf(made), ...calendarOf(made), ...mapOf(made), ...chartOf(made)]
	const tabs: MadeLine = {
		...{ id: newId(), kind: 'tabs' },
		lines: views.map(({ name, line }) => ({ id: newId(), kind: 'tab', title: name, lines: [line] }))
	}
	return {
		...{ id: ids.list, title, icon: proposeIcon(table.name) ?? null },
		lines: [
			{ id: newId(), kind: 'heading', text: title },
			...(views.length > 1 ? [tabs] : views.map(({ line }) => line)),
			{
				...{ id: newId(), kind: 'button', label: `Add ${withArticle(oneOf(table.name))}` },
				does: { kind: 'open', screen: ids.form }
			}
		]
	}
}

interface ViewOf {
	readonly name: string
	readonly line: MadeLine
}

function listOf({ table, kind, all, ids, newId }: Made): ViewOf {
	const date = mainDate(table)
	const [first] = knownBy(table)
	const sort =
		date && kind !== 'register'
			? [{ column: date.id, descending: kind === 'log' }]
			: [{ column: first?.id ?? table.label, descending: false }]
	return {
		name: 'List',
		line: {
			...{ id: newId(), kind: 'list', table: table.id, where: '', sort, opens: ids.sheet },
			columns: columnsShown(table),
			finds: table.rows > LOOKED_FOR_ABOVE ? soughtIn(table) : [],
			filters: filtersOf(table, all),
			lines: marksOf(table, newId)
		}
	}
}

/** By how far they are. */
function boardOf({ table, ids, newId }: Made): ViewOf[] {
	const state = stateOf(table)
	if (!state || (state.choices ?? []).length > MOST_LANES) return []
	const columns = columnsShown(table).filter((id) => id !== state.id)
	const line: MadeLine = {
		...{ id: newId(), kind: 'board', table: table.id, where: '', by: state.id, columns, opens: ids.sheet },
		lines: marksOf(table, newId)
	}
	return [{ name: `By ${state.name.toLowerCase()}`, line }]
}

/** Of what is due or planned; what has happened is looked at by months. */
function calendarOf({ table, kind, ids, newId }: Made): ViewOf[] {
	const date = kind === 'log' ? undefined : mainDate(table)
	if (!date || date.shows === 'datetime') return []
	const until = table.columns.find((column) => column !== date && /\b(until|ends?|last day)\b/i.test(column.name))
	const line: MadeLine = {
		...{ id: newId(), kind: 'calendar', table: table.id, where: '', by: date.id, opens: ids.sheet },
		...(until && isDate(until) && until.shows !== 'datetime' ? { until: until.id } : {}),
		columns: columnsShown(table).filter((id) => id !== date.id),
		lines: marksOf(table, newId)
	}
	return [{ name: 'Calendar', line }]
}

function mapOf({ table, ids, newId }: Made): ViewOf[] {
	const at = table.columns.find(({ type }) => type === 'place')
	if (!at) return []
	const by = table.columns.find(({ type, choices = [] }) => type === 'choice' && choices.length <= MOST_SIGNS)
	const line: MadeLine = {
		...{ id: newId(), kind: 'map', table: table.id, where: '', at: at.id, by: by?.id ?? null, opens: ids.sheet },
		columns: columnsShown(table),
		lines: marksOf(table, newId)
	}
	return [{ name: 'Map', line }]
}

/** How often it happened by months; of what only stands there, how much there is of each kind. */
function chartOf({ table, kind, ids, newId }: Made): ViewOf[] {
	const date = kind === 'log' ? mainDate(table) : undefined
	const choice = table.columns.find(({ type, choices = [] }) => type === 'choice' && choices.length <= MOST_SIGNS)
	const by = choice ? { column: choice.id, step: null } : null
	const chart = (parts: Pick<ChartLine, 'by' | 'parted'>): MadeLine => ({
		...{ id: newId(), kind: 'chart', table: table.id, where: '', measure: { of: 'count', column: null } },
		...{ opens: ids.sheet, ...parts }
	})
	if (date) return [{ name: 'By month', line: chart({ by: { column: date.id, step: 'months' }, parted: by }) }]
	return choice && kind === 'register'
		? [{ name: `By ${choice.name.toLowerCase()}`, line: chart({ by, parted: null }) }]
		: []
}

/** What is past its day, where that is known: of what can be done with, only until it is. */
function marksOf(table: MadeTable, newId: () => string): MadeLine[] {
	const [due, state] = [dueOf(table), stateOf(table)]
	if (!due) return []
	const closing = state ? closingOf(state) : []
	if (due.type !== 'computed' && closing.length === 0) return []
	const open = state ? closing.map((choice) => `${printName(state.name)} <> "${choice.replaceAll('"', '""')}"`) : []
	const where = [...open, `${printName(due.name)} < TODAY()`].join(' and ')
	return [{ id: newId(), kind: 'mark', word: 'past due', tone: 'past', where }]
}

/** The date that counts: what is due by it, or else the first. */
export function mainDate(table: MadeTable): MadeColumn | undefined {
	return dueOf(table) ?? table.columns.find(isDate)
}

const NOT_IN_A_LIST: ReadonlySet<string> = new Set(['long text', 'photo', 'ink', 'signature', 'file', 'place'])

/** What a row is known by, how far it is and when, and then the rest in its order. */
export function columnsShown(table: MadeTable, without?: number): number[] {
	const shown = table.columns.filter(({ type }) => !NOT_IN_A_LIST.has(type))
	const first = [...knownBy(table), stateOf(table), mainDate(table)].flatMap((column) => column ?? [])
	const references = shown.filter(({ type }) => type === 'reference')
	const ids = [...first, ...references, ...shown].map(({ id }) => id).filter((id) => id !== without)
	return [...new Set(ids)].slice(0, SHOWN)
}

function soughtIn({ columns }: MadeTable): number[] {
	return columns
		.filter(({ type }) => ['text', 'code', 'email'].includes(type))
		.flatMap(({ id }) => id)
		.slice(0, 3)
}

function filtersOf({ columns }: MadeTable, all: readonly MadeTable[]): number[] {
	const isFew = (to: number | undefined) => (all.find(({ id }) => id === to)?.rows ?? Infinity) <= FEW
	return columns
		.filter(({ type, to }) => type === 'choice' || (type === 'reference' && isFew(to)))
		.map(({ id }) => id)
		.slice(0, MOST_FILTERS)
}
