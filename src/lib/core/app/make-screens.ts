/** Makes an app from tables at once: for each a list, a record sheet and a form. All of it can be changed afterwards. */
import { capitalized, oneOf, withArticle } from './name-things.ts'
import { proposeIcon } from '../text/icons.ts'
import { APP_FORMAT, screenSchema, type AppDocument, type Screen, type ScreenInput } from './document.ts'

/** As much of a table as screens are made from. */
export interface ScreenTable {
	readonly id: number
	readonly name: string
	readonly label: number
	readonly columns: readonly { readonly id: number; readonly type: string; readonly condition?: boolean }[]
}

const SHOWN_IN_LIST = 4

export interface NewApp {
	readonly name: string
	readonly about: string
	readonly colour: AppDocument['colour']
}

/** `newId` gives a fresh id for each screen and line. */
export function makeApp(app: NewApp, tables: readonly ScreenTable[], newId: () => string): AppDocument {
	const screens = tables.flatMap((table) => makeScreens(table, newId))
	return { format: APP_FORMAT, ...app, icon: null, screens, routines: [], signoffs: [] }
}

/** A list, a sheet and a form for a table, as a builder would begin. */
export function makeScreens(whole: ScreenTable, newId: () => string): Screen[] {
	const table = { ...whole, columns: whole.columns.filter((column) => !column.condition) }
	const record = makeRecord(table, newId)
	const form = makeForm(table, newId)
	return [makeList(table, { record: record.id, form: form.id }, newId), record, form].map((screen) =>
		screenSchema.parse(screen)
	)
}

function makeList(table: ScreenTable, screens: { record: string; form: string }, newId: () => string): ScreenInput {
	const rest = table.columns.filter((column) => column.id !== table.label && column.type !== 'long text')
	const columns = [table.label, ...rest.map((column) => column.id)].slice(0, SHOWN_IN_LIST)
	return {
		id: newId(),
		title: capitalized(table.name),
		icon: proposeIcon(table.name) ?? null,
		lines: [
			{ id: newId(), kind: 'heading', text: capitalized(table.name) },
			{
				id: newId(),
				kind: 'list',
				table: table.id,
				where: '',
				sort: [{ column: table.label, descending: false }],
				columns,
				opens: screens.record
			},
			{
				id: newId(),
				kind: 'button',
				label: `Add ${withArticle(oneOf(table.name))}`,
				does: { kind: 'open', screen: screens.form }
			}
		]
	}
}

function makeRecord(table: ScreenTable, newId: () => string): ScreenInput {
	const columns = table.columns.map((column) => column.id)
	return {
		id: newId(),
		title: capitalized(oneOf(table.name)),
		lines: [{ id: newId(), kind: 'record', table: table.id, columns }]
	}
}

function makeForm(table: ScreenTable, newId: () => string): ScreenInput {
	const columns = table.columns.filter((column) => column.type !== 'computed').map((column) => column.id)
	return {
		id: newId(),
		title: `Add ${withArticle(oneOf(table.name))}`,
		// Its button stands under the list.
		stands: 'by link only',
		lines: [{ id: newId(), kind: 'form', table: table.id, columns, thanks: 'Saved.' }]
	}
}
