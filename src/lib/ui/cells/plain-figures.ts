/** Figures of a filter: they travel plain, with a dot, and stand in its entry as the workspace writes them. */
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { parseNumber } from '$lib/core/table/kinds/numbers.ts'
import { figuresOf } from '$lib/core/table/show-value.ts'
import { CONTROLS } from './controls.ts'

/** What was typed, plain; as it stands where it is no number. */
export function plainFigures(column: ShownColumn, typed: string): string {
	if (!column.writing || !isFigures(column)) return typed
	const [, figures = '', sign = ''] = /^(.*?)\s*(%?)$/.exec(typed.trim()) ?? []
	const value = parseNumber(figures, column.writing)
	return value === undefined ? typed : `${value}${sign}`
}

/** The other way. */
export function writtenFigures(column: ShownColumn, plain: string): string {
	const [, figures = '', sign = ''] = /^(.*?)(%?)$/.exec(plain) ?? []
	const isNumber = figures.trim() !== '' && Number.isFinite(Number(figures))
	return column.writing && isFigures(column) && isNumber ? figuresOf(Number(figures), column.writing) + sign : plain
}

function isFigures({ type, shows }: ShownColumn): boolean {
	return CONTROLS[type].inFigures === true || shows === 'number'
}
