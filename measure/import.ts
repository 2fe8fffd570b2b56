/** A CSV of a million rows brought in through the real threads, the shell's import beside it, and edits meanwhile. */
import { spawnSync } from 'node:child_process'
import { appendFileSync, createReadStream, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import type { ColumnGuess } from '../src/lib/core/exchange/guess.ts'
import type { ImportPlan } from '../src/lib/core/exchange/plan.ts'
import { openHost, type Host } from '../src/lib/server/host/host.ts'

const ROWS = 1_000_000
const RUNS = 3

export async function measureImport(folder: string, scripts: string) {
	const csv = join(folder, 'soundings.csv')
	writeCsv(csv)
	const workspace = join(folder, 'workspace')
	// In a process of its own, so that its memory is not counted here.
	spawnSync(process.execPath, [join(scripts, 'make-demo.js'), workspace], { stdio: 'inherit' })
	const host = await openHost({ folder: workspace, scripts, origin: 'http://127.0.0.1:1' })
	const person = (await host.read('people', undefined)).find((each) => each.name === 'Saskia Holm')?.person ?? 0
	const idleMegabytes = megabytes()
	const runs = []
	for (let i = 0; i < RUNS; i++)
		runs.push(await bringInSoundings(host, { csv, person, name: `Soundings ${i}`, editing: false }))
	// Once more with somebody editing as fast as answers come, which is no part of the first ratio.
	const busy = await bringInSoundings(host, { csv, person, name: 'Soundings, busy', editing: true })
	await host.close()
	const edits = [...busy.edits].sort((a, b) => a - b)
	const shell = Array.from({ length: RUNS }, (_run, i) => importByShell(csv, join(folder, `shell-${i}.db`), INDEX))
	return {
		rows: ROWS,
		inspectMs: middle(runs.map((run) => run.inspectMs)),
		importMs: middle(runs.map((run) => run.importMs)),
		shellMs: middle(shell),
		idleMegabytes,
		mostMegabytes: Math.max(...runs.map((run) => run.mostMegabytes)),
		edits: edits.length,
		editMedian: edits[Math.floor(edits.length / 2)] ?? 0,
		editP99: edits[Math.floor(edits.length * 0.99)] ?? 0,
		editMax: edits[edits.length - 1] ?? 0
	}
}

export function writeCsv(file: string, rows = ROWS): void {
	writeLines(file, rows, lineOf)
}

export function writeLines(file: string, rows: number, line: (i: number) => string): void {
	writeFileSync(file, 'no,sounding,depth,day,bed,place,remark,buoy\n')
	for (let from = 0; from < rows; from += PIECE) {
		const lines = Array.from({ length: Math.min(PIECE, rows - from) }, (_line, i) => line(from + i))
		appendFileSync(file, `${lines.join('\n')}\n`)
	}
}

/** Written in pieces, so that its memory is not counted with the program's. */
const PIECE = 10_000

export function lineOf(i: number): string {
	const bed = ['sand', 'shell', 'mud', 'rock'][i % 4]
	return `${i},S-${i},${(i % 97) / 10},2026-0${(i % 9) + 1}-1${i % 9},${bed},"50.${3000 + (i % 900)}, -4.${1000 + (i % 800)}",taken on the ebb ${i % 500},B-${i % 7000}`
}

/** Brings the file in as a table of that name; `editing`: while somebody edits as fast as answers come. */
export async function bringInSoundings(
	host: Host,
	{ csv, person, name, editing }: { csv: string; person: number; name: string; editing: boolean }
) {
	const actor = { person }
	const given = await host.imports.take(
		'soundings.csv',
		Readable.toWeb(createReadStream(csv)) as ReadableStream<Uint8Array>,
		actor
	)
	const looked = performance.now()
	const found = await host.imports.inspect(given.id, {}, actor)
	const inspectMs = performance.now() - looked
	const plan: ImportPlan = {
		sheet: found.sheet,
		headingRow: found.headingRow,
		firstRow: found.firstRow,
		tableName: name,
		label: found.label,
		columns: found.columns.map(toColumn)
	}
	const started = performance.now()
	await host.imports.start(given.id, plan, actor)
	const edits: number[] = []
	let mostMegabytes = 0
	const edit = await editor(host, person)
	for (;;) {
		const state = host.imports.state(given.id, actor)
		if (state.state === 'done')
			return { table: state.table, inspectMs, importMs: performance.now() - started, edits, mostMegabytes }
		if (state.state === 'failed') throw new Error(state.message)
		mostMegabytes = Math.max(mostMegabytes, megabytes())
		if (!editing) {
			await new Promise((done) => setTimeout(done, 5))
			continue
		}
		const asked = performance.now()
		await edit()
		edits.push(performance.now() - asked)
	}
}

function toColumn(guess: ColumnGuess, from: number): ImportPlan['columns'][number] {
	const { name, unit, type, places, choices, writing } = guess
	const extra = {
		...(unit ? { unit } : {}),
		...(places === undefined ? {} : { places }),
		...(choices ? { choices: [...choices] } : {})
	}
	return { from, name, type: type as 'text', include: true, writing, fixes: [], ...extra }
}

/** Edits one cell of the demo's moorings, each time another value. */
export async function editor(host: Host, person: number): Promise<() => Promise<void>> {
	const actor = { person }
	const bench = await host.read('bench', { actor, now: host.now() })
	const table = bench.tables.find((each) => each.name === 'Moorings')
	const note = table?.columns.find((column) => column.name === 'Holder')?.id ?? 0
	const page = await host.read('rows', { actor, request: { table: table?.id ?? 0, limit: 1 }, now: host.now() })
	let i = 0
	return async () => {
		const change = {
			kind: 'change' as const,
			table: table?.id ?? 0,
			row: page.rows[0]?.id ?? '',
			cells: [{ column: note, value: `Holder ${i++}` }]
		}
		await host.write('changeRows', { changes: [change], context: { actor, now: host.now(), through: 'grid' } })
	}
}

const CREATE =
	'CREATE TABLE s (no INTEGER, sounding TEXT, depth REAL, day TEXT, bed TEXT, place TEXT, remark TEXT, buoy TEXT);'
/** The index that the table gets here, on the column its rows are known by. */
const INDEX = 'CREATE INDEX i ON s (no);'

function importByShell(csv: string, file: string, index: string): number {
	const started = performance.now()
	const result = spawnSync(
		'sqlite3',
		[file, 'PRAGMA journal_mode = WAL;', CREATE, '.mode csv', `.import --skip 1 ${csv} s`, index],
		{ encoding: 'utf8' }
	)
	if (result.status !== 0) throw new Error(`Cannot run the sqlite3 shell (apt-get install sqlite3): ${result.stderr}`)
	return performance.now() - started
}

/** What the program holds in all its threads, without the pages of the file that the system maps for it (Linux). */
function megabytes(): number {
	const status = readFileSync('/proc/self/status', 'utf8')
	return Number(/RssAnon:\s*(\d+)/.exec(status)?.[1] ?? 0) / 1024
}

function middle(values: readonly number[]): number {
	return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0
}
