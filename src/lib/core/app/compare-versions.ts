/** Two versions of an app compared in sentences: what a release would change for staff, said as a builder reads it. */
import type { AppDocument } from './document.ts'
import { countOf } from '../text/count.ts'
import type { Edit } from './edits/edit.ts'
import { editsBetween } from './edits/edits-between.ts'
import { printApp, type Bay, type Names, type PrintedLine, type PrintedPart } from './printed.ts'

export interface Difference {
	readonly kind: 'added' | 'removed' | 'changed' | 'moved'
	/** The line's running number, in the later version where it is there; blank for what has none. */
	readonly number: string
	/** The sentence, with what it said and what it says now where the two differ. */
	readonly pieces: readonly Piece[]
}

export interface Piece {
	readonly text: string
	readonly kind: 'same' | 'old' | 'new'
}

export interface ChangedPart {
	readonly place: string
	readonly differences: readonly Difference[]
}

const FIELDS: Readonly<Record<string, string>> = { name: 'Name', about: 'What it is for', colour: 'Colour' }
const BAYS: Readonly<Record<Bay, string>> = { screens: 'Screen', routines: 'Routine', 'sign-offs': 'Sign-off' }

/** Part by part, in the order in which they stand; names are today's, so that a renamed column is no difference. */
export function compareVersions(before: AppDocument, after: AppDocument, names: Names): ChangedPart[] {
	const edits = editsBetween(before, after)
	const [old, next] = [printApp(before, names), printApp(after, names)]
	const fields = edits.flatMap((edit) => (edit.kind === 'set' ? [fieldDifference(edit)] : []))
	const parts = pairsOf(old, next).map((pair) => ({
		place: placeOf(pair),
		differences: [...partDifferences(pair, edits), ...lineDifferences(pair, edits)]
	}))
	return [{ place: 'The app', differences: fields }, ...parts].filter(({ differences }) => differences.length > 0)
}

/** In letters. */
const LONGEST_NOTE = 400

/** A note for those who look later, in a few words: `Screen Map added. Screen Due: 2 lines changed, 1 removed.` */
export function noteOf(parts: readonly ChangedPart[]): string {
	const said = parts.map(({ place, differences }) => {
		const kinds = (['added', 'changed', 'moved', 'removed'] as const).flatMap((kind) => {
			const count = differences.filter((each) => each.kind === kind).length
			return count === 0 ? [] : [{ kind, count }]
		})
		const [only] = kinds
		const isWhole = kinds.length === 1 && (only?.kind === 'added' || only?.kind === 'removed') && place !== 'The app'
		if (isWhole && differences.some(({ number }) => number === '')) return `${place} ${only.kind}.`
		const counts = kinds.map(({ kind, count }, i) => `${i === 0 ? countOf(count, 'line') : count} ${kind}`)
		return place === 'The app' ? 'Name or look changed.' : `${place}: ${counts.join(', ')}.`
	})
	const note = said.join(' ')
	return note.length <= LONGEST_NOTE ? note : `${note.slice(0, LONGEST_NOTE - 1).replace(/\s+\S*$/, '')}…`
}

/** A screen, routine or sign-off in both versions. */
interface Pair {
	readonly was: PrintedPart | undefined
	readonly now: PrintedPart | undefined
}

function pairsOf(old: readonly PrintedPart[], next: readonly PrintedPart[]): Pair[] {
	const isSame = (one: PrintedPart) => (other: PrintedPart) => one.bay === other.bay && one.id === other.id
	return [
		...next.map((now) => ({ was: old.find(isSame(now)), now })),
		...old.filter((was) => !next.some(isSame(was))).map((was) => ({ was, now: undefined }))
	]
}

function placeOf({ was, now }: Pair): string {
	const part = now ?? was
	return part ? `${BAYS[part.bay]} ${part.title}` : ''
}

function fieldDifference({ key, was, value }: Extract<Edit, { kind: 'set' }>): Difference {
	return { kind: 'changed', number: '', pieces: [same(`${FIELDS[key] ?? key}: `), ...replaced(was, value)] }
}

/** A part that came, went, is called otherwise, or stands elsewhere among its like. */
function partDifferences({ was, now }: Pair, edits: readonly Edit[]): Difference[] {
	const whole = (kind: Difference['kind'], ...pieces: Piece[]): Difference[] => [{ kind, number: '', pieces }]
	const part = now ?? was
	if (!part) return []
	const called = `${BAYS[part.bay]} ${part.title}`
	if (!was) return whole('added', { text: called, kind: 'new' })
	if (!now) return whole('removed', { text: called, kind: 'old' })
	if (was.title !== now.title) return whole('changed', same('Name: '), ...replaced(was.title, now.title))
	const isMoved = edits.some(
		({ kind, ...edit }) => kind === 'put' && 'after' in edit && typeof edit.home === 'string' && edit.id === now.id
	)
	return isMoved ? whole('moved', same(called)) : []
}

/** Of what stands in both; a part that is new or gone is said as one. */
function lineDifferences({ was, now }: Pair, edits: readonly Edit[]): Difference[] {
	if (!was || !now) return []
	const moved = new Set(
		edits.flatMap((edit) =>
			edit.kind === 'put' && typeof edit.home === 'object' && edit.home.screen === now.id ? [edit.id] : []
		)
	)
	const there = now.lines.flatMap((line): Difference[] => {
		const before = was.lines.find(({ id }) => id === line.id)
		const { number } = line
		if (!before) return [{ kind: 'added', number, pieces: [{ text: line.text, kind: 'new' }] }]
		if (before.text !== line.text) return [{ kind: 'changed', number, pieces: piecesBetween(before, line) }]
		return moved.has(line.id) ? [{ kind: 'moved', number, pieces: [same(line.text)] }] : []
	})
	const gone = was.lines.flatMap(({ id, text }): Difference[] =>
		now.lines.some((line) => line.id === id) ? [] : [{ kind: 'removed', number: '', pieces: [{ text, kind: 'old' }] }]
	)
	return [...there, ...gone]
}

/** Slot by slot: what a slot said is struck, beside what it says now. */
function piecesBetween(was: PrintedLine, now: PrintedLine): Piece[] {
	const slots = (line: PrintedLine) => line.segments.filter((segment) => segment.kind === 'slot')
	const before = new Map(slots(was).map(({ slot, text }) => [slot.key, text]))
	const pieces = now.segments.flatMap((segment): Piece[] => {
		if (segment.kind === 'words') return [same(segment.text)]
		const old = before.get(segment.slot.key) ?? ''
		before.delete(segment.slot.key)
		return old === segment.text ? [same(old)] : replaced(old, segment.text)
	})
	// Clauses that were taken off have no place in the sentence any more.
	const off = [...before.values()].map((text): Piece => ({ text, kind: 'old' }))
	return off.length === 0 ? pieces : [...pieces, same(' '), ...off]
}

function replaced(was: unknown, now: unknown): Piece[] {
	const pieces: Piece[] = [
		{ text: String(was ?? ''), kind: 'old' },
		{ text: String(now ?? ''), kind: 'new' }
	]
	return pieces.filter(({ text }) => text !== '')
}

function same(text: string): Piece {
	return { text, kind: 'same' }
}
