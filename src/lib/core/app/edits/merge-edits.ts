/** Edits put into a document that others have changed: as many as go, the rest handed back. */
import type { AppDocument } from '../document.ts'
import { applyEdits, type EditConflict } from './apply-edits.ts'
import type { Edit } from './edit.ts'
import { itemsOf, keyOf } from './items.ts'

export interface Merged {
	readonly document: AppDocument
	readonly placed: readonly Edit[]
	/** What would undo somebody else's change: for who made it to decide. */
	readonly unplaced: readonly EditConflict[]
}

export function mergeEdits(document: AppDocument, edits: readonly Edit[]): Merged {
	return edits.reduce<Merged>(
		(merged, edit) => {
			const applied = applyEdits(merged.document, [edit])
			if (applied.ok) return { ...merged, document: applied.document, placed: [...merged.placed, edit] }
			const conflict = applied.conflict ?? { edit, what: 'changed' }
			return { ...merged, unplaced: [...merged.unplaced, conflict] }
		},
		{ document, placed: [], unplaced: [] }
	)
}

/** The same edit as it goes whatever others did: over what stands there now, or as new where that is gone. */
export function insist(document: AppDocument, { edit, what }: EditConflict): Edit {
	if (edit.kind === 'set') return { ...edit, was: (document as Readonly<Record<string, unknown>>)[edit.key] }
	if (edit.kind === 'put' && what === 'gone') return { ...edit, was: undefined, after: edit.after ?? null }
	const there = itemsOf(document).find((item) => keyOf(item) === keyOf(edit))
	if (!there) return edit
	return edit.kind === 'put' ? { ...edit, was: there.own } : { ...edit, was: there.own, holds: [...there.holds] }
}
