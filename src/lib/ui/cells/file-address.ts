import type { Attachment } from '$lib/core/capture/attachment.ts'

/** Where the file of a cell is fetched: as oneself, or in the Lookout as whom it shows. It changes with the file. */
export function fileAddress(
	base: string,
	{ column, row, file }: { column: number; row: string; file: Attachment }
): string {
	const as = base.startsWith('/as/') ? `&as=${base.slice(4)}` : ''
	return `/files/${column}?row=${encodeURIComponent(row)}&of=${file.sha.slice(0, 12)}${as}`
}
