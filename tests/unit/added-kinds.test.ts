/** A kind more of line, step, start and column, once the compiler has all that it asks for, works everywhere without more. */
import { resolve } from 'node:path'
import { createServer } from 'vite'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { REGISTRIES, written } from '../support/further-kinds.ts'

type Ran = ReturnType<(typeof import('../support/run-further-kinds.ts'))['runFurtherKinds']>

const KINDS = ['a line of a screen', 'a step of a routine', 'a start of a routine', 'a type of column']

/** The sources with one kind more in each of these registries. */
async function loadWhole() {
	const chosen = REGISTRIES.filter(({ what }) => KINDS.includes(what))
	const texts = written(...chosen.map(({ whole }) => whole))
	const changed = new Map(Object.entries(texts).map(([path, text]) => [resolve(path), text]))
	return createServer({
		configFile: false,
		server: { middlewareMode: true, watch: null, hmr: false },
		optimizeDeps: { noDiscovery: true },
		appType: 'custom',
		resolve: { alias: { $lib: resolve('src/lib') } },
		plugins: [
			{
				name: 'further-kinds',
				enforce: 'pre',
				resolveId: (id, importer) => {
					const path = importer === undefined ? id : resolve(importer, '..', id)
					return changed.has(path) ? path : undefined
				},
				load: (id) => changed.get(id)
			}
		]
	})
}

let server: Awaited<ReturnType<typeof loadWhole>>
let ran: Ran

beforeAll(async () => {
	server = await loadWhole()
	// It is what its type says, read from other sources.
	const loaded = (await server.ssrLoadModule('/tests/support/run-further-kinds.ts')) as { runFurtherKinds: () => Ran }
	ran = loaded.runFurtherKinds()
})
afterAll(() => server.close())

test('is read, printed, copied as text and compared', () => {
	expect(ran.kinds).toEqual(['sounding', 'button'])
	expect(ran.text).toContain('Sounding [Herons] of [vessels] by [name] where [name = "Heron"]')
	expect(ran).toMatchObject({ problems: [], again: [{ kind: 'sounding', column: 20, where: 'name = "Heron"' }, {}] })
	expect(ran.printed).toContain('When somebody rings at a row of vessels')
	expect(ran.printed).toContain('Ring berth with UPPER(name)')
	expect(ran.compared).toEqual(['Screen Vessels', 'Routine Ring'])
})

test('is gone through for the tables and columns that it names', () => {
	expect(ran.tables).toContain('Screen Vessels')
	expect(ran).toMatchObject({ names: true, needs: 'Routine Ring' })
})

test('follows a renamed column, is shown, and does what it does', () => {
	expect(ran.renamed).toContain('called = \\"Heron\\"')
	expect(ran.renamed).toContain('UPPER(called)')
	// A button that runs on a row is offered beside one.
	expect(ran.shown).toEqual(['heading'])
	expect(ran.rows).toBe(1)
})

test('is checked, and keeps a release back', () => {
	expect(ran.found).toEqual([
		expect.stringMatching(/^Vessels, line 1: .*nothing/),
		expect.stringMatching(/^Routine Ring, line 1: .*nobody/)
	])
	expect(ran.kept).toContain('Vessels, line 1')
})
