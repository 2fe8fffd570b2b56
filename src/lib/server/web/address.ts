/** What an address asks, checked before anything uses it: its parameters by a schema, the numbers of its route as numbers. */
import { error } from '@sveltejs/kit'
import { z } from 'zod'

/** What a query may hold, by name. Every one is text; what is missing is undefined. */
export function readQuery<T extends z.ZodRawShape>(url: URL, shape: T): z.infer<z.ZodObject<T>> {
	const parsed = z.object(shape).safeParse(Object.fromEntries(url.searchParams))
	if (parsed.success) return parsed.data
	const [name = ''] = parsed.error.issues[0]?.path ?? []
	error(422, `This address cannot be read: look at "${String(name)}" in it.`)
}

export const wholeInAddress = z
	.string()
	.regex(/^\d{1,15}$/)
	.transform(Number)

/** Numbers with commas between; none where there is nothing. */
export const numbersInAddress = z
	.string()
	.regex(/^(\d{1,15}(,\d{1,15}){0,199})?$/)
	.default('')
	.transform((text) => (text === '' ? [] : text.split(',').map(Number)))

/** Texts that are only looked up or handed on. */
export const textInAddress = z.string().max(4_000)

const NUMBERED = ['app', 'table', 'column', 'provider']

/** Routes that are known by a number lead nowhere by anything else. */
export function refuseOddParams(params: Partial<Record<string, string>>): void {
	const isOdd = NUMBERED.some((name) => params[name] !== undefined && !wholeInAddress.safeParse(params[name]).success)
	if (isOdd) error(404, 'There is nothing at this address.')
}
