/** Why a file of JSON could not be read, with the place of what is wrong, for whoever wrote it by hand. */
import { z } from 'zod'

export function whyUnreadable(thrown: unknown): string {
	if (thrown instanceof SyntaxError) return `it is no JSON (${thrown.message}).`
	if (thrown instanceof TypeError || thrown instanceof RangeError) return 'it cannot be read.'
	if (!(thrown instanceof z.ZodError)) return thrown instanceof Error ? `${thrown.message}.` : 'it cannot be read.'
	const [first] = thrown.issues
	const place = (first?.path ?? []).map((part) => (typeof part === 'number' ? `${part + 1}` : String(part))).join(' ')
	const more = thrown.issues.length > 1 ? ` There are ${thrown.issues.length - 1} more places.` : ''
	return `${place || 'the whole'}: ${first?.message ?? ''}.${more}`
}
