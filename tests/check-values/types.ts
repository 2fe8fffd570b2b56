import { inferColumn } from '$lib/core/exchange/infer.ts'
import type { RowResult } from './result.ts'

export interface TypeRow {
	readonly id: string
	readonly column: string
	readonly samples: string[]
	readonly expected: string
	readonly alsoAccept?: string[]
}

/** The tables' plain words for types, as ours. */
const OURS: Readonly<Record<string, readonly string[]>> = {
	datetime: ['date and time'],
	location: ['place'],
	barcode: ['code'],
	image: ['photo', 'web address']
}

export function checkTypeRow({ id, column, samples, expected, alsoAccept }: TypeRow): RowResult {
	const { type, doubts } = inferColumn(column, samples, 1)
	const wanted = [expected, ...(alsoAccept ?? [])].flatMap((name) => OURS[name] ?? [name])
	const asks = wanted.includes('ask') && doubts.length > 0
	return {
		id,
		short:
			wanted.includes(type) || asks
				? undefined
				: `${column} ${JSON.stringify(samples)} is read as ${type}, expected ${expected}`
	}
}
