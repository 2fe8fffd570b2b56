/** What a new column can be, in the words of whoever makes it, and what is sent for it. */
import { COLUMN_TYPES, offersChoices } from '$lib/core/model/table.ts'
import type { BenchTable } from '$lib/server/review/bench.ts'

/** A person is a reference to the people table: it has a word of its own because everybody looks for one. */
export const OFFERED_TYPES: readonly string[] = COLUMN_TYPES.flatMap((type) =>
	type === 'reference' ? [type, 'person'] : [type]
)

export interface ChosenType {
	readonly type: string
	/** As typed, with commas between. */
	readonly choices: string
	/** The table that a reference points to. */
	readonly to: number
}

export function toColumnSettings({ type, choices, to }: ChosenType, tables: readonly BenchTable[]) {
	if (type === 'person') return { type: 'reference', to: tables.find((table) => table.people)?.id ?? 0 }
	if (type === 'reference') return { type, to }
	if (offersChoices({ type })) return { type, choices: splitChoices(choices) }
	return type === 'money' ? { type, unit: '£' } : { type }
}

export function splitChoices(text: string): string[] {
	return text
		.split(',')
		.map((each) => each.trim())
		.filter((each) => each !== '')
}
