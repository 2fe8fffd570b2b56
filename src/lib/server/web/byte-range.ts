/** The part of a file that a request asks for (RFC 9110, 14.1.2): one range, as players of films ask; anything else is answered whole. */
import type { ByteRange } from '../files/file-store.ts'

/** `size`: of the whole, in bytes. Undefined for all of it. */
export function rangeOf(header: string | null, size: number): ByteRange | undefined {
	const [, from = '', to = ''] = /^bytes=(\d{0,15})-(\d{0,15})$/.exec(header?.trim() ?? '') ?? []
	if (from === '' && to === '') return undefined
	// Only an end is so many bytes from there.
	const start = from === '' ? Math.max(0, size - Number(to)) : Number(from)
	const end = from === '' || to === '' ? size - 1 : Math.min(Number(to), size - 1)
	return start <= end ? { start, end } : undefined
}
