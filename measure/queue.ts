/**
 * The queue of a whole program: edits of others while a routine works through 100,000 rows, against the same edits alone; how many
 * steps inside are still to be done when the first message has left; and how many messages a second the stand-in takes.
 */
import Database from 'better-sqlite3'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { APP_FORMAT, appSchema } from '../src/lib/core/app/document.ts'
import { addAppFrom } from '../src/lib/server/apps/apps.ts'
import { openHost, type HostPlace } from '../src/lib/server/host/host.ts'
import { addMessage } from '../src/lib/server/queue/messages.ts'
import { releaseApp } from '../src/lib/server/apps/release-app.ts'
import { addRun } from '../src/lib/server/routines/runs.ts'
import { openRowIds } from '../src/lib/server/store/row-ids.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { KEEPER } from '../tests/support/scratch-store.ts'
import { by, CREW, ITEMS, NOW, openItems, SEEN, STOCK } from './runs.ts'
import { median } from './timing.ts'

const KEY = 'ab'.repeat(32)
const WORKED = 100_000
const EDITS = 200
const JOBS = 1_000
const MAILS = 400

export interface QueueFigures {
	/** An edit in ms, while 100,000 rows are worked, and alone; and how long the rows took, in s. */
	readonly beside: number
	readonly alone: number
	readonly worked: number
	/** Of a thousand, when the first message had left. */
	readonly jobsLeft: number
	readonly mailsASecond: number
}

export async function measureQueue(folder: string, scripts: string): Promise<QueueFigures> {
	const edits = await besideWork(join(folder, 'queue-work'), scripts)
	const jobsLeft = await firstMessage(join(folder, 'queue-first'), scripts)
	const mailsASecond = await mails(join(folder, 'queue-mail'), scripts)
	return { ...edits, jobsLeft, mailsASecond }
}

async function besideWork(folder: string, scripts: string) {
	make(folder, WORKED, (store, app) => {
		addRun(store, { app, release: 1, routine: 'all', person: KEEPER, on: undefined, path: ['All'], now: NOW })
	})
	const host = await openHost(placeOf(folder, scripts))
	const ids = openRowIds(Buffer.from(KEY, 'hex'))
	const edit = async (i: number) => {
		const cells = [{ column: STOCK, value: i % 50 }]
		const change = { kind: 'change' as const, table: ITEMS, row: ids.toId(ITEMS, ((i * 7919) % WORKED) + 1), cells }
		const asked = performance.now()
		await host.write('changeRows', {
			changes: [change],
			context: { actor: { person: KEEPER }, now: host.now(), through: 'grid' }
		})
		return performance.now() - asked
	}
	const began = performance.now()
	const beside: number[] = []
	const db = new Database(join(folder, 'workspace.db'), { readonly: true })
	const isDone = db.prepare(`SELECT state = 'done' FROM run`).pluck()
	while (isDone.get() !== 1) beside.push(await edit(beside.length))
	const worked = (performance.now() - began) / 1_000
	const alone: number[] = []
	for (let i = 0; i < EDITS; i++) alone.push(await edit(i))
	db.close()
	await host.close()
	return { beside: median(beside), alone: median(alone), worked }
}

async function firstMessage(folder: string, scripts: string): Promise<number> {
	make(folder, JOBS, (store, app) => {
		for (let n = 1; n <= JOBS; n++)
			addRun(store, { app, release: 1, routine: 'one', person: KEEPER, on: { table: ITEMS, n }, path: ['One'], now: NOW }) // prettier-ignore
		write(store, 0)
	})
	const db = new Database(join(folder, 'workspace.db'), { readonly: true })
	const left = db.prepare<[], number>(`SELECT count(*) FROM run WHERE state <> 'done'`).pluck()
	let jobsLeft = 0
	let host: Awaited<ReturnType<typeof openHost>> | undefined
	await new Promise<void>((resolve, reject) => {
		const at: HostPlace['at'] = (step) => {
			if (step !== 'sent') return
			jobsLeft = left.get() ?? 0
			resolve()
		}
		openHost({ ...placeOf(folder, scripts), at }).then((opened) => (host = opened), reject)
	})
	db.close()
	await host?.close()
	return jobsLeft
}

async function mails(folder: string, scripts: string): Promise<number> {
	make(folder, 1, (store) => {
		for (let i = 0; i < MAILS; i++) write(store, i)
	})
	const times: number[] = []
	let host: Awaited<ReturnType<typeof openHost>> | undefined
	await new Promise<void>((resolve, reject) => {
		const at: HostPlace['at'] = (step) => {
			if (step !== 'finished') return
			times.push(performance.now())
			if (times.length === MAILS) resolve()
		}
		openHost({ ...placeOf(folder, scripts), at }).then((opened) => (host = opened), reject)
	})
	await host?.close()
	const [first = 0, last = 0] = [times[0], times.at(-1)]
	return (MAILS - 1) / ((last - first) / 1_000)
}

/** What an account needs leaves at once, however many there are. */
function write(store: Store, i: number): void {
	const message = { subject: `Message ${i}`, body: 'The stock is low.', link: undefined }
	addMessage(store, { kind: 'account', cause: `measure ${i}`, person: KEEPER, to: { name: 'Imke', email: 'imke@varrow.example' }, ...message, now: NOW }) // prettier-ignore
}

function make(folder: string, rows: number, fill: (store: Store, app: number) => void): void {
	mkdirSync(folder, { recursive: true })
	writeFileSync(join(folder, 'secret.key'), KEY)
	const store = openItems(join(folder, 'workspace.db'), rows)
	const set = { id: 's', kind: 'set' as const, column: SEEN, formula: 'seen + 1' }
	const clock = { kind: 'clock' as const, days: 'each year on 28 February', at: '00:00', missed: 'not at all' as const }
	const routines = [
		{ ...{ id: 'all', name: 'All', acts: CREW, start: clock }, steps: [{ id: 'e', kind: 'each' as const, table: ITEMS, where: '', lines: [set] }] }, // prettier-ignore
		{ ...{ id: 'one', name: 'One', acts: CREW, start: { kind: 'called' as const, table: ITEMS } }, steps: [set] }
	]
	const screens = [{ id: 's', title: 'S', lines: [] }]
	const document = appSchema.parse({ format: APP_FORMAT, name: 'R', about: '', colour: 'sea', screens, routines, signoffs: [] }) // prettier-ignore
	store.db.transaction(() => {
		const app = addAppFrom(store, { document, ...by })
		releaseApp(store, { app, note: '', ...by })
		fill(store, app)
	})()
	store.db.close()
}

function placeOf(folder: string, scripts: string): HostPlace {
	return { folder, scripts, origin: 'http://127.0.0.1:1' }
}
