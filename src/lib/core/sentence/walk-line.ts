/** What a line names, by the slots of its sentence: its tables, its columns, its formulas. */
import type { MapColumn } from '../model/map-columns.ts'
import { readSlot, writeSlot } from './line-values.ts'
import { isBlank } from './print.ts'
import { entryOfSlot } from './slots/all.ts'
import type { MapNumber } from './slots/entry.ts'
import type { LineValue, SentenceKind, Slot } from './types.ts'

/** The tables that a line names, by number. */
export function tablesIn(kind: SentenceKind, line: object): readonly number[] {
	return filledSlots(kind, line).flatMap(({ slot, value }) => entryOfSlot(slot.type).tables?.(value) ?? [])
}

/** The columns that a line names, by number. */
export function columnsIn(kind: SentenceKind, line: object): readonly number[] {
	return filledSlots(kind, line).flatMap(({ slot, value }) => entryOfSlot(slot.type).columns?.(value) ?? [])
}

/** The files that a line shows, by the SHA-256 of their bytes. */
export function filesIn(kind: SentenceKind, line: object): readonly string[] {
	return filledSlots(kind, line).flatMap(({ slot, value }) => entryOfSlot(slot.type).files?.(value) ?? [])
}

/** The line with its columns mapped; what cannot do without one is left as it stands. */
export function mapColumnsIn<T extends object>(kind: SentenceKind, line: T, map: MapColumn): T {
	return mapSlots(kind, line, (slot, value) => entryOfSlot(slot.type).mapColumns?.(value, map))
}

/** The line with its tables, and its roles, by other numbers. */
export function mapNumbersIn<T extends object>(kind: SentenceKind, line: T, { table, role }: MapNumbers): T {
	const mapped = mapSlots(kind, line, (slot, value) => entryOfSlot(slot.type).mapTables?.(value, table))
	return mapSlots(kind, mapped, (slot, value) => entryOfSlot(slot.type).mapRoles?.(value, role))
}

export interface MapNumbers {
	readonly table: MapNumber
	readonly role: MapNumber
}

/** Of a formula in a line: whether it may read of whoever looks or presses, and the reference whose rows it stands on. */
export interface InLine {
	readonly me: boolean
	readonly through?: number
	/** Whether it stands on the row around, not on those of the line's table. */
	readonly isOuter?: true
}

export type MapText = (text: string, at: InLine) => string

/** The line with its formulas mapped, those inside texts too. */
export function mapFormulasIn<T extends object>(kind: SentenceKind, line: T, map: MapText): T {
	return mapSlots(kind, line, (slot, value) => {
		// Documents hold JSON, which a line's value is.
		const through = slot.through === undefined ? undefined : readSlot(line as LineValue, slot.through)
		const at = {
			me: slot.me ?? true,
			...(typeof through === 'number' ? { through } : {}),
			...(slot.isOuter ? { isOuter: slot.isOuter } : {})
		}
		return entryOfSlot(slot.type).mapFormulas?.(value, (text) => map(text, at))
	})
}

/** The line with what stands in its slots changed; where nothing is given for one, it stays. */
function mapSlots<T extends object>(kind: SentenceKind, line: T, change: (slot: Slot, value: unknown) => unknown): T {
	return filledSlots(kind, line).reduce((next, { slot, value }) => {
		const changed = change(slot, value)
		return changed === undefined ? next : writeSlot(next, slot.key, changed)
	}, line)
}

function filledSlots(kind: SentenceKind, line: object): { readonly slot: Slot; readonly value: unknown }[] {
	return kind.parts.flatMap((part) => {
		if (typeof part === 'string') return []
		// Documents hold JSON, which a line's value is.
		const value = readSlot(line as LineValue, part.key)
		return isBlank(value) ? [] : [{ slot: part, value }]
	})
}
