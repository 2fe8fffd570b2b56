/** Imports lead down, never up and never round; the order of the folders stands in the docs. */
import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { readImports } from '../support/imports.ts'

const imports = readImports('src')
const within = (folder: string) => [...imports].filter(([path]) => path.startsWith(folder))

/** The folders that are listed under a heading of the docs, in their order. */
function orderUnder(heading: string): string[] {
	const text = readFileSync('docs/ARCHITECTURE.md', 'utf8').split(`### ${heading}\n`)[1]?.split('\n#')[0] ?? ''
	return [...text.matchAll(/^\d+\. `([\w/-]+)\/`/gm)].map(([, name = '']) => name)
}

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

describe.each([
	{ under: 'src/lib/core/', heading: 'The folders of the core', above: /^src\/(routes|lib\/ui|lib\/server)\// },
	{ under: 'src/lib/server/', heading: 'The folders of the server', above: /^src\/(routes|lib\/ui)\// },
	{ under: 'src/lib/ui/', heading: 'The folders of the interface', above: /^src\/(routes|lib\/server)\// }
])('$heading', ({ under, heading, above }) => {
	const order = orderUnder(heading)
	/** Those of files that lie beside the folders are left out: every folder may use them. */
	const files = within(under).filter(([path]) => path.slice(under.length).includes('/'))
	const rankOf = (path: string) => order.findLastIndex((name) => path.startsWith(`${under}${name}/`))

	test('are those that the docs name, and no others', () => {
		expect(files.flatMap(([path]) => (rankOf(path) === -1 ? [path] : []))).toEqual([])
		expect(order.filter((_name, rank) => !files.some(([path]) => rankOf(path) === rank))).toEqual([])
	})

	test('use themselves and those before them', () => {
		const up = files.flatMap(([path, targets]) =>
			targets
				.filter((target) => target.startsWith(under) && rankOf(target) > rankOf(path))
				.map((target) => `${path} → ${target}`)
		)
		expect(up).toEqual([])
	})

	test('use nothing of what lies above them', () => {
		const up = files.flatMap(([path, targets]) =>
			targets.filter((target) => above.test(target)).map((target) => `${path} → ${target}`)
		)
		expect(up).toEqual([])
	})
})

test('pages take nothing from the server but what comes over the wire', () => {
	const taken = within('src/routes/')
		.filter(([path]) => path.endsWith('.svelte'))
		.flatMap(([path, targets]) =>
			targets.filter((target) => target.startsWith('src/lib/server/')).map((target) => `${path} → ${target}`)
		)
	expect(taken).toEqual([])
})

test.each(['src/lib/server/', 'src/lib/ui/', 'src/routes/'])('no file of %s comes back to itself', (folder) => {
	expect(circles(new Map(within(folder)))).toEqual([])
})
