/** The screen of one row: all that stands in it, and what belongs to it. */
import type { ScreenInput } from '../document.ts'
import { capitalized, oneOf, withArticle } from '../name-things.ts'
import type { MadeColumn, MadeTable } from './classify.ts'
import type { Made, MadeLine } from './made.ts'
import { columnsShown, mainDate } from './make-list.ts'

/** More stand in two columns where there is room. */
const IN_ONE_COLUMN = 8
const LISTED = 20

export function makeSheet(made: Made): ScreenInput {
	const { table, ids, newId } = made
	const columns = table.columns.map(({ id }) => id)
	const across = columns.length > IN_ONE_COLUMN ? ('in two columns' as const) : null
	return {
		...{ id: ids.sheet, title: capitalized(oneOf(table.name)) },
		lines: [{ id: newId(), kind: 'record', table: table.id, columns, across }, ...belongingTo(made)]
	}
}

/** What points to the row, where that is no mere choice. */
function belongingTo(made: Made): MadeLine[] {
	return made.all.flatMap((other) => {
		const kind = made.classes.get(other.id)
		const by = other.columns.find(({ to, type }) => type === 'reference' && to === made.table.id)
		if (!by || kind === undefined || kind === 'people' || kind === 'link' || kind === 'choices') return []
		return listOfThose(other, by, made)
	})
}

function listOfThose(other: MadeTable, by: MadeColumn, { classes, screens, newId }: Made): MadeLine[] {
	const isLines = classes.get(other.id) === 'lines'
	const date = mainDate(other)
	const list: MadeLine = {
		...{ id: newId(), kind: 'list', table: other.id, where: '', of: by.id, limit: isLines ? null : LISTED },
		sort: date ? [{ column: date.id, descending: true }] : [],
		columns: columnsShown(other, by.id),
		opens: screens.get(other.id)?.sheet ?? null,
		as: isLines ? 'a table' : null
	}
	const columns = other.columns.filter(({ id, type }) => id !== by.id && type !== 'computed').map(({ id }) => id)
	const form: MadeLine = { id: newId(), kind: 'form', table: other.id, of: by.id, columns, thanks: 'Saved.' }
	const add = `Add ${withArticle(oneOf(other.name))}`
	return [
		{ id: newId(), kind: 'heading', text: capitalized(other.name) },
		list,
		{ id: newId(), kind: 'fold', title: add, lines: [form] }
	]
}
