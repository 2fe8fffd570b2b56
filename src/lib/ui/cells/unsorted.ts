/** Why rows do not stand in the order that was asked for, and what would help. */
export function sayUnsorted(columns: readonly { readonly id: number; readonly name: string }[], id: number): string {
	const name = columns.find((column) => column.id === id)?.name ?? 'This column'
	return `${name} is worked out for each reader from the rows they see, so more than 10,000 rows are not put in order by it. Filter first, or order by another column.`
}
