/** What a new column can be, in the words of whoever makes it, and what is sent for it. */
import { COLUMN_TYPES, offersChoices, type ColumnTypeName } from '$lib/core/model/table.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'

/** A person is a reference to the people table: it has a word of its own because everybody looks for one. */
export type OfferedType = ColumnTypeName | 'person'

export const OFFERED_TYPES: readonly OfferedType[] = COLUMN_TYPES.flatMap((type): OfferedType[] =>
	type === 'reference' ? [type, 'person'] : [type]
)

export interface ChosenType {
	type: OfferedType
	/** As typed, with commas between. */
	choices: string
	/** The table that a reference points to. */
	to: number
}

export function toColumnSettings(
	{ type, choices, to }: ChosenType,
	tables: readonly BenchTable[]
): Pick<ColumnEntry, 'type' | 'to' | 'choices' | 'unit'> {
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
