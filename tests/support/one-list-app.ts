import { APP_FORMAT, appSchema, type AppDocument, type AppInput } from '$lib/core/app/document.ts'

/** The least app that shows rows: one screen with a list of one column. */
export function oneListApp(name: string, table: number, column: number): AppDocument {
	return appSchema.parse({
		format: APP_FORMAT,
		name,
		about: '',
		colour: 'sea',
		screens: [
			{
				id: 's',
				title: 'Today',
				lines: [{ id: 'l', kind: 'list', table, where: '', sort: [], columns: [column], opens: null }]
			}
		],
		routines: [],
		signoffs: []
	} satisfies AppInput)
}
