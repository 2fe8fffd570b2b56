/** How a listing of rows is asked for in an address: `sort=7,-9&filters=[…]`, a minus for falling. */
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { filtersSchema } from '$lib/core/query/filter.ts'
import type { RowsRequest, SortBy } from './resolve.ts'

const sortSchema = z
	.string()
	.regex(/^(-?\d+(,-?\d+){0,7})?$/)
	.transform((text) => (text === '' ? [] : text.split(',').map(toSort)))

/** The order and the filters of a list, as its address says them; refused where they cannot be read. */
export function readListing(query: URLSearchParams): Pick<RowsRequest, 'sort' | 'then' | 'filters'> {
	const sorts = sortSchema.safeParse(query.get('sort') ?? '')
	const filters = filtersSchema.safeParse(parseJson(query.get('filters') ?? '[]'))
	if (!sorts.success || !filters.success) throw new AppError('invalid', 'This order or filter cannot be read.')
	const [sort, ...then] = sorts.data
	return { ...(sort ? { sort, then } : {}), filters: filters.data }
}

function toSort(text: string): SortBy {
	return { column: Math.abs(Number(text)), descending: text.startsWith('-') }
}

function parseJson(text: string): unknown {
	try {
		return JSON.parse(text)
	} catch {
		return undefined
	}
}
