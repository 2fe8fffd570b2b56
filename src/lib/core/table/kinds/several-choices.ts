import { textKey } from '../../text/key.ts'
import { findNearest } from '../../text/nearest.ts'
import type { Column } from '../../model/table.ts'
import { read, refuse, type ColumnKind, type Reading } from './kind.ts'

const BETWEEN = '; '

/** Kept as the text that people see, "Chain; Shackle", in the builder's order. */
export const severalChoices: ColumnKind = {
	name: 'several choices',
	read: (text, column) => take(text, column),
	check: (value, column) =>
		typeof value === 'string' ? take(value.trim(), column) : refuse('Some of the choices were expected here.'),
	toStored: (value) => String(value),
	fromStored: (stored) => String(stored)
}

/** The choices in a cell, which lie there with `; ` between them. */
export function partsOf(text: string): string[] {
	return text
		.split(';')
		.map((part) => part.trim())
		.filter((part) => part !== '')
}

/** Choices as a cell keeps them; the opposite of `partsOf`. */
export function joinParts(parts: readonly string[]): string {
	return parts.join(BETWEEN)
}

/** Semicolons stand between choices in a file; commas as well, where no choice has one. */
function take(text: string, column: Column): Reading {
	const choices = column.choices ?? []
	const commas = !text.includes(';') && !choices.some((choice) => choice.includes(','))
	const chosen = new Set<string>()
	for (const part of partsOf(commas ? text.replaceAll(',', ';') : text)) {
		const found = choices.find((choice) => textKey(choice) === textKey(part))
		if (found === undefined) {
			const near = findNearest(part, choices)
			return refuse(`"${part}" is not one of the choices.` + (near ? ` Did you mean "${near}"?` : ''))
		}
		chosen.add(found)
	}
	return read(chosen.size === 0 ? null : joinParts(choices.filter((choice) => chosen.has(choice))))
}
