import { error } from '@sveltejs/kit'

/** A column of a table that this builder keeps; its addresses are tried by their browser, never from here. */
export async function load({ url, parent }) {
	const { bench } = await parent()
	const table = bench.tables.find((each) => each.kept && each.id === Number(url.searchParams.get('table')))
	const column = table?.columns.find((each) => each.id === Number(url.searchParams.get('column')))
	if (!table || !column) error(404, 'This column is not there, or its table is kept by somebody else.')
	return { table, column }
}
