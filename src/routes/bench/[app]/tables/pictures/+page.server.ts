import { readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { error } from '@sveltejs/kit'

/** A column of a table that this builder keeps; its addresses are tried by their browser, never from here. */
export async function load({ url, parent }) {
	const { bench } = await parent()
	const asked = readQuery(url, { table: wholeInAddress.optional(), column: wholeInAddress.optional() })
	const table = bench.tables.find((each) => each.owned && each.id === asked.table)
	const column = table?.columns.find((each) => each.id === asked.column)
	if (!table || !column) error(404, 'This column is not there, or its table is kept by somebody else.')
	return { table, column }
}
