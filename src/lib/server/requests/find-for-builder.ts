/** What a builder finds on the Bench besides: screens of the draft, tables that they know, and columns of those. */
import type { Found } from '$lib/core/requests/find.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Threads } from '../threads/threads.ts'

const MOST_COLUMNS = 12

export async function findForBuilder(
	threads: Pick<Threads, 'read'>,
	app: number,
	{ text, actor, now }: ByActor & { text: string }
): Promise<Found[]> {
	const [{ document }, bench] = await Promise.all([
		threads.read('draft', { app }),
		threads.read('bench', { actor, now })
	])
	const words = text.trim().toLocaleLowerCase()
	const holds = (name: string) => name.toLocaleLowerCase().includes(words)
	const base = `/bench/${app}`
	const screens = document.screens
		.filter(({ title }) => holds(title))
		.map(({ id, title }): Found => ({ kind: 'screen', title, where: 'Bench', href: `${base}/screens?screen=${id}` }))
	const tables = bench.tables
		.filter(({ name }) => holds(name))
		.map(({ id, name }): Found => ({ kind: 'table', title: name, where: 'Bench', href: `${base}/tables?table=${id}` }))
	if (words === '') return [...screens, ...tables]
	const columns = bench.vocabulary.tables.flatMap((table) =>
		table.columns
			.filter(({ name }) => holds(name))
			.map(({ name }): Found => {
				const href = `${base}/tables?table=${table.id}`
				return { kind: 'column', title: name, where: table.name, href }
			})
	)
	return [...screens, ...tables, ...columns.slice(0, MOST_COLUMNS)]
}
