/** A bundle as it comes: text that anybody may have written. Refused with the place of what cannot be read. */
import { bundleSchema, type Bundle } from '$lib/core/app/bundle.ts'
import { parseApp, type AppDocument } from '$lib/core/app/document.ts'
import { AppError } from '$lib/core/app-error.ts'
import { whyUnreadable } from '../apps/why-unreadable.ts'

export interface GivenBundle extends Omit<Bundle, 'app'> {
	readonly app: AppDocument
}

export function readBundle(text: string): GivenBundle {
	try {
		const bundle = bundleSchema.parse(JSON.parse(text))
		const wrong = misfitIn(bundle)
		if (wrong !== undefined) throw new Error(wrong)
		return { ...bundle, app: parseApp(JSON.stringify(bundle.app)) }
	} catch (thrown) {
		throw new AppError('invalid', `This is no bundle of an app: ${whyUnreadable(thrown)}`)
	}
}

/** Each number names one thing, a table is known by one of its columns, and what is pointed to is there. */
function misfitIn({ tables, people }: Bundle): string | undefined {
	const numbers = [people.id, ...tables.map(({ id }) => id)]
	const columns = tables.flatMap((table) => table.columns.map(({ id }) => id))
	const [table, column] = [twiceIn(numbers), twiceIn(columns)]
	if (table !== undefined) return `two of its tables have the number ${table}`
	if (column !== undefined) return `two of its columns have the number ${column}`
	for (const { name, label, columns: own, rows } of tables) {
		if (!own.some(({ id }) => id === label)) return `${name} does not say what its rows are known by`
		if (twiceIn(rows.map(({ id }) => id)) !== undefined) return `two rows of ${name} have one id`
		const astray = own.find(({ to }) => to !== undefined && !numbers.includes(to))
		if (astray) return `${name}, ${astray.name} points to a table that is not in it`
	}
	return undefined
}

function twiceIn<T>(all: readonly T[]): T | undefined {
	const seen = new Set<T>()
	return all.find((each) => seen.size === seen.add(each).size)
}
