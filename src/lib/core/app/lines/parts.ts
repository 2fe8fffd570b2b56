/** What all kinds of screen line have in common. */
import { z } from 'zod'
import { mistake, remark, type Found } from '../../document/findings.ts'
import { id, number, type AppFile } from '../../document/parts.ts'
import { check, checkCondition } from '../../formula/check/check.ts'
import { piecesIn } from '../../text/pieces.ts'
import { lostIn } from '../../query/kept.ts'
import { findColumn, type Table } from '../../model/table.ts'
import type { Part, Slot } from '../../sentence/types.ts'
import type { Around } from './entry.ts'

/** Of every line. `who`: the roles that it is for; everybody, where none is named. It hides, and guards nothing. */
export const lineParts = { id, who: z.array(number).default([]) }

const FOR_WHOM: Slot = { key: 'who', type: 'roles', title: 'For whom it is', before: ', for ', clause: 'for…' }

/** Which rows of its table a line is about. */
export const WHICH_ROWS: Slot = {
	key: 'where',
	type: 'condition',
	title: 'Which rows',
	before: 'where ',
	empty: 'every row'
}

/** Which of them, once something is chosen or typed on the screen. */
export const ONCE_CHOSEN: Slot = {
	...{ key: 'once', type: 'condition', title: 'Which of them, once something is chosen on the screen' },
	...{ before: ', and once chosen ', clause: 'once chosen…' }
}

/** The parts of a sentence, and whom its line is for. */
export function withWhom(...parts: readonly Part[]): readonly Part[] {
	return [...parts, FOR_WHOM]
}

/** What is wrong with the column by which rows belong to the row that a screen shows. */
export function checkBelongs(of: number | null, table: Table): Found[] {
	if (of === null) return []
	return findColumn(table, of)?.type === 'reference'
		? []
		: mistake('What belongs to the row that is shown is found by a reference to it. Choose such a column.')
}

/** What is wrong with a day on which something is shown as it was: a formula over no row. */
export function checkDay(formula: string, { catalogue, here }: Around): Found[] {
	const { expr, issues } = check(formula, { catalogue, rows: [], me: true, here })
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(expr && expr.type.kind !== 'date' && expr.type.kind !== 'blank'
			? mistake('The day on which it was so is no date. Write TODAY() - 30, say, or DATE(2026; 11; 3).')
			: [])
	]
}

/** What is wrong with conditions on rows as they were: of some columns nothing is known. */
export function checkKept(conditions: readonly string[], table: Table, { catalogue, here }: Around): Found[] {
	return conditions.flatMap((condition) => {
		if (condition.trim() === '') return []
		const { expr } = checkCondition(condition, { catalogue, rows: [table], me: true, here })
		const lost = expr ? lostIn(expr) : []
		return lost.flatMap(({ name }) =>
			mistake(`${name} is made of other rows. What it was on a past day is not known, and no row can be told by it.`)
		)
	})
}

/** What is to be looked at where a picture says nothing to who cannot see it. */
export function remarkUnsaid(picture: AppFile | null, says: string): Found[] {
	return picture !== null && says.trim() === '' ? remark('Say what is on the picture, for who cannot see it.') : []
}

/** What is wrong with the formulas in braces of some words, which stand over no row. */
export function checkPieces(text: string, { catalogue, here }: Around): Found[] {
	return piecesIn(text)
		.flatMap((formula) => check(formula, { catalogue, rows: [], me: true, here }).issues)
		.flatMap(({ message }) => mistake(message))
}

/** What is wrong with the roles that a line is for. */
export function checkWhom({ who }: { readonly who: readonly number[] }, { hasRole }: Around): Found[] {
	return who.every(hasRole) ? [] : mistake('A role that it is for is gone.')
}
