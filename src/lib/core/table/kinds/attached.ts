import { fromStoredFile, type AttachedType } from '../../capture/attachment.ts'
import { refuse, type ColumnKind } from './kind.ts'

/** Types whose cells hold a file: it is given in beside the cell, never typed. Formulas see its name. */
export function attachedKind(name: AttachedType, remedy: string): ColumnKind {
	return {
		name,
		read: () => refuse(remedy),
		check: () => refuse(remedy),
		toStored: (value) => String(value),
		fromStored: (stored) => fromStoredFile(String(stored)).name
	}
}
