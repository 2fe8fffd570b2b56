/** What a builder is told before a release, and the few sentences that several parts of a document share. */
import { findColumn, type Table } from '../model/table.ts'

export interface Finding {
	/** A mistake keeps the release back; a remark is to be looked at. */
	readonly weight: 'mistake' | 'remark'
	readonly place: string
	readonly message: string
	/** Where it is mended on the Bench. */
	readonly spot?: Spot
}

/** A bay of the Bench; of the screens, and of the routines, which one, and which of its lines. */
export interface Spot {
	readonly bay: 'access' | 'routines' | 'screens' | 'sign-offs' | 'tables'
	readonly screen?: string
	readonly routine?: string
	readonly line?: string
	readonly table?: number
}

export type Found = Omit<Finding, 'place' | 'spot'>

/** What would not work, in words with the remedy: it keeps a release back. */
export function mistake(message: string): Found[] {
	return [{ weight: 'mistake', message }]
}

/** What a builder should have looked at; it keeps nothing back. */
export function remark(message: string): Found[] {
	return [{ weight: 'remark', message }]
}

/** Says where something was found. */
export function at(place: string, spot: Spot): (found: Found) => Finding {
	return (found) => ({ ...found, place, spot })
}

/** The same of a line of a screen. `number`: as builders count them. */
export function atLine(
	screen: { readonly id: string; readonly title: string },
	{ line, number }: { readonly line: { readonly id: string }; readonly number: number }
): (found: Found) => Finding {
	return at(`${screen.title}, line ${number}`, { bay: 'screens', screen: screen.id, line: line.id })
}

export const TABLE_GONE = 'Its table is gone. Choose another.'
export const SCREEN_GONE = 'The screen it opens is gone.'

/** What is wrong with the columns that something shows or asks for. */
export function checkColumns(ids: readonly number[], table: Table): Found[] {
	if (ids.length === 0) return mistake('It shows no column yet.')
	return ids.every((id) => findColumn(table, id)) ? [] : mistake(`A column it shows is no longer in ${table.name}.`)
}
