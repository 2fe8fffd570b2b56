/** What a keeper does to columns and tables that exist: other names, rules and types, taking out and putting back. */
import type { ColumnWords, ColumnUse, ConversionPreview, TableWords } from '$lib/core/requests/structure.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { plainText } from '$lib/core/formula/evaluate/evaluate.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { showValue } from '$lib/core/table/show-value.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import { placesOf } from '$lib/core/table/choice-places.ts'
import { isNumbering } from '$lib/core/table/numbering.ts'
import { comparedPlace, hasKey, type StoredValue } from '$lib/core/table/storage.ts'
import { partsOf } from '$lib/core/table/kinds/several-choices.ts'
import {
	findColumn,
	getColumn,
	offersChoices,
	TYPED_TYPES,
	type Column,
	type ColumnTypeName,
	type Table
} from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import type { ColumnEntry, TableEntry } from '$lib/core/workspace/document.ts'
import { describePerson } from '../rights/accounts.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'
import { toValue } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'
import { takeNumbers } from '../store/numbers.ts'
import { refuseUnheldRule } from './rules.ts'
import { refuseIfNeeded, restructure, usesOfColumn } from './restructure.ts'
import { addColumn as addPhysical } from '../store/schema.ts'
import { RETENTION_MS } from './retention.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { refuseTakenName } from './tables.ts'

interface OfColumn extends ByActor {
	readonly table: number
	readonly column: number
}

/** Changes what a column is called and how it is set; formulas that name it follow. */
export function changeColumn(
	store: Store,
	{ table, column, words, actor, now }: OfColumn & { words: ColumnWords }
): void {
	const owned = getTableAsKeeper(store, table, actor)
	const old = getColumn(owned, column)
	const name = words.name?.trim()
	if (name !== undefined) refuseTaken(owned, name, column)
	if (words.numbering && !isNumbering(words.numbering))
		throw new AppError('invalid', 'A numbering needs one group of noughts in braces, as in SR-{year}-{0000}.')
	if (words.numbering && old.type !== 'text' && old.type !== 'code')
		throw new AppError(
			'invalid',
			'Numbers such as SR-2026-0001 are text or codes. Change the type of the column first.'
		)
	if (words.otherwise) refuseUnheldRule(store, { table, kind: 'default', text: words.otherwise, actor, now })
	if (words.choices) refuseLostChoices(store, owned, old, words.choices)
	if (words.onRemoval && old.type !== 'reference')
		throw new AppError('invalid', 'Only a reference says what becomes of its rows.')
	if (words.uniqueWithin) refuseIfNotPlain(owned, words.uniqueWithin)
	if (words.unique) refuseRepeats(store, owned, old, within(words).uniqueWithin)
	restructure(store, { table, actor, now, what: `column ${old.name}` }, (entry) =>
		mapColumn(entry, column, (each) => {
			const { uniqueWithin: _was, ...plain } = { ...each, ...words, name: name ?? each.name }
			const now = words.unique === undefined ? within(each) : within(words)
			return withoutBlanks({ ...plain, ...now })
		})
	)
}

/** Whether values may repeat is said in one: without the other column, they may repeat nowhere. */
function within({ unique, uniqueWithin }: ColumnWords): { readonly uniqueWithin?: number } {
	return unique && uniqueWithin ? { uniqueWithin } : {}
}

/** Changes what a table is called and who owns it; formulas that name it follow. */
export function changeTable(
	store: Store,
	{ table, words, actor, now }: ByActor & { table: number; words: TableWords }
): void {
	const owned = getTableAsKeeper(store, table, actor)
	const name = words.name?.trim()
	if (name !== undefined && name.toLowerCase() !== owned.name.toLowerCase()) refuseTakenName(store, name)
	for (const { formula } of words.checks ?? [])
		refuseUnheldRule(store, { table, kind: 'check', text: formula, actor, now })
	restructure(store, { table, actor, now, what: 'table' }, (entry) =>
		withoutBlanks({ ...entry, ...words, name: name ?? entry.name })
	)
}

/**
 * Says who keeps a table. Only builders keep one, and somebody always does; a keeper may leave it to others. The people
 * table, which nobody made, is given its keepers by a steward.
 */
export function setKeepers(
	store: Store,
	{ table, keepers, actor, now }: ByActor & { table: number; keepers: readonly number[] }
): void {
	const found = store.workspace().catalogue.tables.get(table)
	const byName = (person: number) => describePerson(store, person)
	const steward = found?.id === store.workspace().catalogue.people.id && byName(actor.person)?.isSteward === true
	if (!steward || actor.lookedAtBy !== undefined) getTableAsKeeper(store, table, actor)
	const wanted = [...new Set(keepers)]
	if (wanted.length === 0 && !steward)
		throw new AppError('invalid', 'Somebody must keep the table. Name another keeper first.')
	// Who keeps it already and is no builder any more hinders nobody from naming another.
	const other = wanted.find((person) => !found?.keepers.includes(person) && !byName(person)?.isBuilder)
	if (other !== undefined)
		throw new AppError(
			'invalid',
			`${byName(other)?.name ?? 'Somebody who is gone'} is no builder, so they cannot keep a table.`
		)
	restructure(store, { table, actor, now, what: 'keepers' }, (entry) => ({ ...entry, keepers: wanted }))
}

/** A steward gives the list of people to a builder to keep, or takes it from them. */
export function keepPeople(
	store: Store,
	{ person, keeps, actor, now }: ByActor & { person: number; keeps: boolean }
): void {
	refuseUnlessSteward(store, actor)
	const { people } = store.workspace().catalogue
	const others = people.keepers.filter((each) => each !== person)
	setKeepers(store, { table: people.id, keepers: keeps ? [...others, person] : others, actor, now })
}

/** What taking a column out would come to. */
export function previewRemoval(
	store: Store,
	{ table, column, actor }: OfColumn
): { uses: ColumnUse[]; filled: number } {
	const owned = getTableAsKeeper(store, table, actor)
	const old = getColumn(owned, column)
	const filled = old.computed ? 0 : Number(store.pluck(`SELECT count(c${column}) FROM t${table}`))
	return { uses: usesOfColumn(store, table, column), filled }
}

/** Takes a column out with what stands in it; refused while something needs it. */
export function removeColumn(store: Store, { table, column, actor, now }: OfColumn): void {
	const owned = getTableAsKeeper(store, table, actor)
	const { name } = getColumn(owned, column)
	refuseIfNeeded(store, table, column)
	const gone = new Set([column])
	restructure(store, { table, actor, now, what: `column ${name} taken out`, gone }, (entry) => {
		const position = entry.columns.findIndex((each) => each.id === column)
		const taken = entry.columns[position]
		const removed = (entry.removed ?? []).filter((each) => each.at > now - RETENTION_MS)
		return {
			...entry,
			columns: entry.columns.filter((each) => each.id !== column),
			removed: taken ? [...removed, { column: taken, position, at: now }] : removed
		}
	})
}

/** Puts a column that was taken out back where it was, with its values. */
export function returnColumn(store: Store, { table, column, actor, now }: OfColumn): void {
	const owned = getTableAsKeeper(store, table, actor)
	const entry = store.workspace().document.tables.find((each) => each.id === table)
	const found = entry?.removed?.find((each) => each.column.id === column)
	if (!found) throw new AppError('not_found', 'That column can no longer be put back.')
	refuseTaken(owned, found.column.name, column)
	restructure(store, { table, actor, now, what: `column ${found.column.name} put back` }, (was) => ({
		...was,
		columns: was.columns.toSpliced(found.position, 0, found.column),
		removed: (was.removed ?? []).filter((each) => each.column.id !== column)
	}))
}

/** What another type would make of the values of a column. */
export function previewConversion(
	store: Store,
	{ table, column, type, actor }: OfColumn & { type: ColumnTypeName }
): ConversionPreview {
	const owned = getTableAsKeeper(store, table, actor)
	const old = getColumn(owned, column)
	const target = targetColumn(store, owned, old, type)
	const unread: { text: string; rows: number }[] = []
	const counts = { read: 0, blank: 0 }
	for (const [stored, rows] of differentValues(store, owned, old)) {
		const text = textOf(old, stored)
		if (text === '') counts.blank += rows
		else if (convert(target, text) === null) unread.push({ text, rows })
		else counts.read += rows
	}
	return { ...counts, unread: unread.sort((a, b) => b.rows - a.rows).slice(0, 50) }
}

/** Gives a column another type. The values as they were stay in the store under their own number. */
export function convertColumn(
	store: Store,
	{ table, column, type, actor, now }: OfColumn & { type: ColumnTypeName }
): number {
	const owned = getTableAsKeeper(store, table, actor)
	const old = getColumn(owned, column)
	const target = targetColumn(store, owned, old, type)
	const id = takeNumbers(store, 'column', 1)
	const made: Column = { ...target, id }
	addPhysical(store.db, owned, made)
	fillConverted(store, owned, old, made)
	const entry = toEntry(made)
	const replaced = new Map([[column, id]])
	restructure(store, { table, actor, now, what: `column ${old.name} to ${type}`, replaced }, (was) => ({
		...mapColumn(was, column, () => entry),
		label: was.label === column ? id : was.label
	}))
	return id
}

function fillConverted(store: Store, table: Table, old: Column, made: Column): void {
	const key = hasKey(made) ? `, c${made.id}k = @key` : ''
	const update = store.db.prepare(`UPDATE t${table.id} SET c${made.id} = @value${key} WHERE c${old.id} IS @stored`)
	// One statement for each different value needs the old column's index; without one, few different values are few passes.
	store.db.exec(`CREATE INDEX IF NOT EXISTS converting ON t${table.id} (c${old.id})`)
	for (const [stored] of differentValues(store, table, old)) {
		const value = convert(made, textOf(old, stored))
		if (value === null) continue
		update.run({ stored, value, ...(key ? { key: textKey(String(value)) } : {}) })
	}
	store.db.exec('DROP INDEX converting')
}

function differentValues(store: Store, table: Table, column: Column): [StoredValue, number][] {
	return store.db
		.prepare<unknown[], [StoredValue, number]>(`SELECT c${column.id}, count(*) FROM t${table.id} GROUP BY 1`)
		.raw()
		.all()
}

/** The column as it will be. A choice offers what stands there; a column of that type before gives its own settings. */
function targetColumn(store: Store, table: Table, old: Column, type: ColumnTypeName): Column {
	if (old.computed || ![old.type, type].every((each) => TYPED_TYPES.includes(each)))
		throw new AppError('invalid', 'This column cannot be given that type here.')
	const { choices: _choices, places: _places, numbering: _numbering, otherwise: _otherwise, ...plain } = old
	if (type === 'date and time') return { ...plain, type, timeZone: store.workspace().timeZone }
	if (!offersChoices({ type })) return { ...plain, type }
	const values = differentValues(store, table, old).flatMap(([stored]) => textOf(old, stored) || [])
	const words = type === 'choice' ? values : values.flatMap((text) => partsOf(text.replaceAll(',', ';')))
	const choices = [...new Map(words.map((word) => [textKey(word), word])).values()].sort()
	if (choices.length > 200)
		throw new AppError(
			'invalid',
			`There are ${choices.length.toLocaleString('en-GB')} different values: too many to choose from.`
		)
	return { ...plain, type, choices }
}

function toEntry(column: Column): ColumnEntry {
	const { computed: _computed, otherwise: _otherwise, timeZone: _zone, choices, ...plain } = column
	return { ...plain, ...(choices ? { choices: [...choices] } : {}) }
}

/** A value as a person would type it. */
function textOf(column: Column, stored: StoredValue): string {
	const value = stored === null ? null : toValue(column, stored)
	if (value === null || isErrorValue(value)) return ''
	if (column.type === 'time' || column.type === 'duration' || column.type === 'yes/no') return showValue(value, column)
	return plainText(value) ?? ''
}

function convert(column: Column, text: string): StoredValue {
	const kind = findKind(column.type)
	if (!kind || text === '') return null
	const reading = kind.read(text, column, column.writing ?? TYPED)
	return reading.ok && reading.value !== null ? kind.toStored(reading.value, column) : null
}

function mapColumn(entry: TableEntry, id: number, map: (column: ColumnEntry) => ColumnEntry): TableEntry {
	return { ...entry, columns: entry.columns.map((each) => (each.id === id ? map(each) : each)) }
}

/** Settings that were emptied are left out rather than kept as nothing. */
function withoutBlanks<T extends object>(entry: T): T {
	const filled = Object.entries(entry).filter(([, value]) => value !== undefined && value !== '' && value !== false)
	// What may be emptied is optional in every entry that comes here.
	return Object.fromEntries(filled) as T
}

function refuseTaken(table: Table, name: string, column: number): void {
	if (name === '') throw new AppError('invalid', 'A column needs a name.')
	const taken = table.columns.some((each) => each.id !== column && each.name.toLowerCase() === name.toLowerCase())
	if (taken) throw new AppError('invalid', `${table.name} has a column called "${name}" already.`)
}

/** Choices may be renamed, moved and added to; only those that no row holds may go. */
function refuseLostChoices(store: Store, table: Table, column: Column, choices: readonly string[]): void {
	if (!offersChoices(column)) throw new AppError('invalid', `${column.name} is no choice.`)
	if (new Set(choices.map(textKey)).size < choices.length)
		throw new AppError('invalid', 'Each choice may stand there once only.')
	const lost = [...placesOf(column.choices ?? [], choices)].filter(([, to]) => to === null).map(([from]) => from)
	if (lost.some((from) => isChosen(store, table, column, from)))
		throw new AppError('invalid', 'Rows still hold one of the choices that would go. Change those rows first.')
}

function isChosen(store: Store, table: Table, column: Column, from: number): boolean {
	const name = `c${column.id}`
	const [holds, value] =
		column.type === 'choice'
			? [`${name} = ?`, from]
			: [`instr('; ' || ${name} || ';', '; ' || ? || ';') > 0`, column.choices?.[from - 1] ?? '']
	return store.db.prepare(`SELECT 1 FROM t${table.id} WHERE ${holds} LIMIT 1`).get(value) !== undefined
}

function refuseIfNotPlain(table: Table, column: number): void {
	if (!findColumn(table, column) || getColumn(table, column).computed)
		throw new AppError('invalid', 'Values can be kept apart only within a column that is typed in.')
}

function refuseRepeats(store: Store, table: Table, column: Column, within: number | undefined): void {
	const name = comparedPlace(column)
	const groups = within === undefined ? '1' : `1, ${comparedPlace(getColumn(table, within))}`
	const [repeated] = store.db
		.prepare<unknown[], unknown[]>(
			`SELECT ${name} FROM t${table.id} WHERE ${name} IS NOT NULL GROUP BY ${groups} HAVING count(*) > 1 LIMIT 1`
		)
		.raw()
		.all()
	if (repeated)
		throw new AppError(
			'invalid',
			`${column.name} holds "${String(repeated[0])}" more than once, so it cannot be unique yet.`
		)
}
