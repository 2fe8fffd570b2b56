/** Imports lead down, never up and never round; the order of the server's folders stands in the docs. */
import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, test } from 'vitest'
import { readImports } from '../support/imports.ts'

const SERVER = 'src/lib/server/'

let imports: ReadonlyMap<string, readonly string[]>

beforeAll(() => {
	imports = readImports('src')
})

const within = (folder: string) => [...imports].filter(([path]) => path.startsWith(folder))
/** The first folder of a path under another. */
const folderOf = (path: string, under: string) => path.slice(under.length).split('/')[0] ?? ''

/** Files that come back to themselves by what they import, each group once. */
function circles(paths: ReadonlyMap<string, readonly string[]>): string[] {
	const state = new Map<string, 'open' | 'done'>()
	const found: string[] = []
	const visit = (path: string, above: readonly string[]): void => {
		if (state.get(path) === 'open') found.push([...above.slice(above.indexOf(path)), path].join(' → '))
		if (state.has(path)) return
		state.set(path, 'open')
		for (const next of paths.get(path) ?? []) visit(next, [...above, path])
		state.set(path, 'done')
	}
	for (const path of paths.keys()) visit(path, [])
	return found
}

describe('the server', () => {
	const order = [...readFileSync('docs/ARCHITECTURE.md', 'utf8').matchAll(/^\d+\. `([\w-]+)\/`/gm)].map(
		([, name]) => name
	)

	test('has the folders that the docs name, and no others', () => {
		const folders = new Set(within(SERVER).map(([path]) => folderOf(path, SERVER)))
		expect([...folders].toSorted()).toEqual(order.toSorted())
	})

	test('imports from its own folder and those before it', () => {
		const up = within(SERVER).flatMap(([path, targets]) => {
			const rank = order.indexOf(folderOf(path, SERVER))
			return targets
				.filter((target) => target.startsWith(SERVER) && order.indexOf(folderOf(target, SERVER)) > rank)
				.map((target) => `${path} → ${target}`)
		})
		expect(up).toEqual([])
	})

	test('uses nothing of the interface and of the routes', () => {
		const up = within(SERVER).flatMap(([path, targets]) =>
			targets.filter((target) => /^src\/(routes|lib\/ui)\//.test(target)).map((target) => `${path} → ${target}`)
		)
		expect(up).toEqual([])
	})
})

test.each(['src/lib/server/', 'src/lib/ui/', 'src/routes/'])('no file of %s comes back to itself', (folder) => {
	expect(circles(new Map(within(folder)))).toEqual([])
})
