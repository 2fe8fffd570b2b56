/** A CSV of a million rows brought into a table of a million that is there, by key, with edits of others meanwhile. */
import { createReadStream } from 'node:fs'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import type { ImportPlan } from '../src/lib/core/exchange/plan.ts'
import { openHost } from '../src/lib/server/host/host.ts'
import type { ImportState } from '$lib/core/requests/imports.ts'
import { bringInSoundings, editor, lineOf, writeLines } from './import.ts'

const ROWS = 1_000_000
/** Every tenth row says something else than the table, and as many are new. */
const CHANGED = 100_000
const ADDED = 100_000

/** In the workspace that the import was measured in. */
export async function measureMerge(folder: string, scripts: string) {
	const host = await openHost({ folder: join(folder, 'workspace'), scripts, origin: 'http://127.0.0.1:1' })
	const person = (await host.read('people', undefined)).find((each) => each.name === 'Saskia Holm')?.person ?? 0
	const csv = join(folder, 'before.csv')
	writeLines(csv, ROWS, lineOf)
	const { table } = await bringInSoundings(host, { csv, person, name: 'Soundings again', editing: false })
	const again = join(folder, 'again.csv')
	writeLines(again, ROWS + ADDED, (i) => (i % 10 === 0 ? lineOf(i).replace('taken on', 'taken again on') : lineOf(i)))
	const actor = { person }
	const body = Readable.toWeb(createReadStream(again)) as ReadableStream<Uint8Array>
	const given = await host.imports.take('again.csv', body, actor)
	const bench = await host.read('bench', { actor, now: host.now() })
	const columns = bench.tables.find((each) => each.id === table)?.columns ?? []
	const found = await host.imports.inspect(given.id, {}, actor)
	const plan: ImportPlan = {
		...{ sheet: found.sheet, headingRow: found.headingRow, firstRow: found.firstRow },
		...{ tableName: 'Soundings again', label: found.label },
		columns: found.columns.map((guess, from) => {
			const to = columns.find((column) => column.name === guess.name)
			return {
				...{ from, name: guess.name, type: guess.type as 'text', include: true, writing: guess.writing, fixes: [] },
				...(guess.places === undefined ? {} : { places: guess.places }),
				...(guess.choices ? { choices: [...guess.choices] } : {}),
				...(to ? { to: to.id } : {})
			}
		}),
		into: { table, how: 'update', keys: [columns.find((column) => column.name === 'no')?.id ?? 0] }
	}
	const edit = await editor(host, person)
	const edits: number[] = []
	const spent = new Map<string, number>()
	const until = async (end: ImportState['state']) => {
		for (;;) {
			const state = host.imports.state(given.id, actor)
			if (state.state === end) return state
			if (state.state === 'failed') throw new Error(state.message)
			if (state.state === 'compared' && state.refused) throw new Error(state.refused.message)
			const asked = performance.now()
			await edit()
			const took = performance.now() - asked
			edits.push(took)
			const doing = state.state === 'running' ? state.doing : state.state
			spent.set(doing, (spent.get(doing) ?? 0) + took)
		}
	}
	await host.imports.start(given.id, plan, actor)
	await until('compared')
	host.imports.apply(given.id, false, actor)
	const merged = await until('merged')
	if (merged.state !== 'merged' || merged.added !== ADDED || merged.changed !== CHANGED)
		throw new Error(`Expected ${ADDED} added and ${CHANGED} changed, got ${JSON.stringify(merged)}`)
	await host.close()
	const sorted = [...edits].sort((a, b) => a - b)
	return {
		...{ rows: ROWS + ADDED, changed: CHANGED, added: ADDED },
		seconds: [...spent].map(([doing, ms]) => ({ doing, s: ms / 1000 })),
		...{ edits: edits.length, median: sorted[Math.floor(edits.length / 2)] ?? 0 },
		p99: sorted[Math.floor(edits.length * 0.99)] ?? 0,
		slowest: sorted.at(-1) ?? 0
	}
}
