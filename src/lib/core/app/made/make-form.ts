/** The screen on which a row is added, with the lines that belong to it. */
import type { ScreenInput } from '../document.ts'
import { oneOf, withArticle } from '../name-things.ts'
import { isDate, type MadeColumn } from './classify.ts'
import type { Made, MadeLine } from './made.ts'

export function makeForm(made: Made): ScreenInput {
	const { table, kind, ids, newId } = made
	const isLog = kind === 'log'
	const columns = table.columns.filter(({ type }) => type !== 'computed')
	const lines = [
		...(isLog
			? columns
					.filter(isDate)
					.slice(0, 1)
					.map((date) => beginsNow(date, newId))
			: []),
		...itemsOf(made)
	]
	return {
		...{ id: ids.form, title: `Add ${withArticle(oneOf(table.name))}` },
		// What happens is written down at once; to anything else its key stands under the list.
		stands: isLog ? null : 'by link only',
		lines: [
			{
				...{ id: newId(), kind: 'form', table: table.id, thanks: 'Saved.', columns: columns.map(({ id }) => id) },
				then: isLog ? null : 'goes back',
				lines
			}
		]
	}
}

function beginsNow({ id, type }: MadeColumn, newId: () => string): MadeLine {
	return { id: newId(), kind: 'entry', column: id, starts: type === 'date' ? 'TODAY()' : 'NOW()' }
}

function itemsOf({ table, all, classes, newId }: Made): MadeLine[] {
	return all.flatMap((other): MadeLine[] => {
		const of = other.columns.find(({ to, required }) => to === table.id && required)
		if (!of || classes.get(other.id) !== 'lines') return []
		const columns = other.columns.filter(({ id, type }) => id !== of.id && type !== 'computed').map(({ id }) => id)
		return [{ id: newId(), kind: 'items', table: other.id, of: of.id, columns }]
	})
}
