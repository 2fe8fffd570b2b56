/** Puts edits into a document, which others may have changed since they were made. */
import { appSchema, type AppDocument, type Screen } from '../document.ts'
import type { ScreenLine } from '../lines/all.ts'
import { allLines, findLine, insertLine, replaceLine, type Spot } from '../lines/tree.ts'
import { isSameJson, type Edit, type Home, type ListName, type PutEdit, type RemoveEdit } from './edit.ts'
import { ownOf } from './items.ts'

/** An edit that would undo what somebody else did meanwhile. */
export interface EditConflict {
	readonly edit: Edit
	/** Whether what it changes was taken out, or is otherwise than it was. */
	readonly what: 'gone' | 'changed'
}

export type Applied =
	| { readonly ok: true; readonly document: AppDocument }
	| { readonly ok: false; readonly conflict: EditConflict }
	/** What it came to is no document: a value that does not fit. */
	| { readonly ok: false; readonly conflict?: never; readonly issues: readonly unknown[] }

/** All of them, or none where one would undo somebody else's change. */
export function applyEdits(document: AppDocument, edits: readonly Edit[]): Applied {
	let next: AppDocument = document
	for (const edit of edits) {
		const what = conflictOf(next, edit)
		if (what) return { ok: false, conflict: { edit, what } }
		next = applyOne(next, edit)
	}
	const parsed = appSchema.safeParse(next)
	return parsed.success ? { ok: true, document: parsed.data } : { ok: false, issues: parsed.error.issues }
}

function conflictOf(document: AppDocument, edit: Edit): EditConflict['what'] | undefined {
	if (edit.kind === 'set') {
		// By its name a field of the document is found; a name that is none has no value.
		const value = (document as Record<string, unknown>)[edit.key]
		return isSameJson(value, edit.was) || isSameJson(value, edit.value) ? undefined : 'changed'
	}
	const found = findThing(document, edit)
	if (edit.kind === 'remove') {
		if (!found) return undefined
		const isMore = heldBy(found).some((id) => !edit.holds.includes(id))
		return isMore || !isSameJson(ownOf(found), edit.was) ? 'changed' : undefined
	}
	if (typeof edit.home !== 'string' && !findScreen(document, edit.home.screen)) return 'gone'
	if (!found) return edit.was === undefined ? undefined : 'gone'
	const own = ownOf(found)
	return isSameJson(own, edit.was) || isSameJson(own, edit.own) ? undefined : 'changed'
}

function applyOne(document: AppDocument, edit: Edit): AppDocument {
	if (edit.kind === 'set') return { ...document, [edit.key]: edit.value }
	const { home } = edit
	if (typeof home === 'string') return { ...document, [home]: editedList(document[home], edit) }
	return {
		...document,
		screens: document.screens.map((screen) =>
			screen.id === home.screen ? { ...screen, lines: editedLines(screen.lines, edit, home) } : screen
		)
	}
}

function editedList(list: AppDocument[ListName], edit: PutEdit | RemoveEdit): unknown[] {
	const found = list.find(({ id }) => id === edit.id)
	const others = list.filter(({ id }) => id !== edit.id)
	if (edit.kind === 'remove') return others
	const put = { ...edit.own, id: edit.id, ...(edit.home === 'screens' ? { lines: linesOf(found) } : {}) }
	if (found && edit.after === undefined) return list.map((each) => (each.id === edit.id ? put : each))
	const at = edit.after === null ? 0 : others.findIndex(({ id }) => id === edit.after) + 1
	// What it stood behind is gone: then it is the last.
	return at === 0 && edit.after !== null ? [...others, put] : [...others.slice(0, at), put, ...others.slice(at)]
}

function editedLines(
	lines: readonly ScreenLine[],
	edit: PutEdit | RemoveEdit,
	home: Exclude<Home, string>
): ScreenLine[] {
	if (edit.kind === 'remove') return replaceLine(lines, edit.id, undefined)
	const found = findLine(lines, edit.id)
	// Looked at by the document's schema when all edits are in.
	const put = { ...edit.own, id: edit.id, lines: linesOf(found) } as unknown as ScreenLine
	if (found && edit.after === undefined) return replaceLine(lines, edit.id, put)
	const others = found ? replaceLine(lines, edit.id, undefined) : lines
	return insertLine(others, put, spotIn(others, home, edit.after ?? null))
}

/** Behind its neighbour; at the end where that is gone, and at the end of the screen where its holder is: nothing is lost. */
function spotIn(lines: readonly ScreenLine[], { within }: Exclude<Home, string>, after: string | null): Spot {
	const holder = within === null ? undefined : findLine(lines, within)
	if (within !== null && !holder) return 'end'
	const isThere = (holder ? linesOf(holder) : lines).some(({ id }) => id === after)
	if (after !== null && isThere) return { after }
	if (!holder) return after === null ? 'start' : 'end'
	return after === null ? { firstIn: holder.id } : { lastIn: holder.id }
}

function findThing(document: AppDocument, { home, id }: PutEdit | RemoveEdit): { readonly id: string } | undefined {
	if (typeof home === 'string') return document[home].find((each) => each.id === id)
	return findLine(findScreen(document, home.screen)?.lines ?? [], id)
}

function findScreen(document: AppDocument, id: string): Screen | undefined {
	return document.screens.find((screen) => screen.id === id)
}

function heldBy(thing: { readonly id: string }): string[] {
	return allLines(linesOf(thing)).map(({ id }) => id)
}

function linesOf(thing: object | undefined): readonly ScreenLine[] {
	// Screens and lines hold lines; routines and sign-offs have none of that name.
	return thing && 'lines' in thing ? (thing.lines as readonly ScreenLine[]) : []
}
