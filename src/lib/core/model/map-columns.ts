/** What becomes of a column that a document names: another number, or undefined where it goes. */
export type MapColumn = (column: number) => number | undefined

/** For columns that are dropped where they go. */
export function mapList(columns: readonly number[], map: MapColumn): number[] {
	return columns.flatMap((column) => map(column) ?? [])
}
