/** The demo workspace, made once for a test file in a folder of its own, opened as the writer opens it. */
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeDemo } from '../../demo/make-demo.ts'
import { readKey } from '$lib/server/base/workspace-key.ts'
import type { Store } from '$lib/server/store/store.ts'
import { openWriter } from '$lib/server/threads/open-writer.ts'
import { PEOPLE } from '../../demo/people.ts'

export const DEMO_NOW = Date.parse('2026-11-23T12:00:00Z')

export async function openDemo(): Promise<{
	store: Store
	folder: string
	person: (name: string) => number
	table: (name: string) => number
}> {
	const folder = mkdtempSync(join(tmpdir(), 'tin-shed-'))
	await makeDemo(folder, DEMO_NOW)
	const store = openWriter(join(folder, 'workspace.db'), readKey(folder))
	const person = (name: string): number => {
		const n = store.db.prepare('SELECT n FROM t1 WHERE c1 = ?').pluck().get(name) as number | undefined
		if (n === undefined || !PEOPLE.some((each) => each.name === name))
			throw new Error(`Cannot find "${name}" in the demo`)
		return n
	}
	const table = (name: string): number => {
		const found = [...store.workspace().catalogue.tables.values()].find((each) => each.name === name)
		if (!found) throw new Error(`Cannot find table "${name}" in the demo`)
		return found.id
	}
	return { store, folder, person, table }
}
