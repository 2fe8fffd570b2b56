import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { checkTypeRow, type TypeRow } from '../check-values/types.ts'

/** A judged table of column names and first values; what does not hold yet is listed here by its reason. */
const { rows } = JSON.parse(readFileSync(new URL('../checks/types.json', import.meta.url), 'utf8')) as {
	rows: TypeRow[]
}

const NOT_YET: Readonly<Record<string, string>> = {
	T137: 'There is no type for photos yet.',
	T155: 'References are offered once both tables are there, not from one file.',
	T163: 'References are offered once both tables are there, not from one file.'
}

describe('types from names and values', () => {
	test.each(rows.filter((row) => !(row.id in NOT_YET)).map((row) => [`${row.id} ${row.column}`, row] as const))(
		'%s',
		(_name, row) => {
			expect(checkTypeRow(row).short).toBeUndefined()
		}
	)
})
