/**
 * Files that were given in and what is being brought in of them. A file belongs to who gave it; nobody else can look
 * at it. What is not brought in is removed after 48 hours.
 */
import type { GivenImport, ImportState, Inspection, Undone } from '$lib/core/requests/imports.ts'
import { createWriteStream } from 'node:fs'
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { MessageChannel } from 'node:worker_threads'
import { AppError } from '$lib/core/app-error.ts'
import { importPlanSchema, type ImportPlan } from '$lib/core/exchange/plan.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { FileToMake } from '../exports/make-file.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Begun, BroughtIn } from '../sources/bring-in.ts'
import type { Importer } from './importer.ts'
import type { InspectRequest } from '../sources/look-through.ts'
import { applyInSteps, compareInSteps, undoInSteps, type Watch } from './merge-run.ts'
import { z } from 'zod'

interface Entry {
	readonly path: string
	readonly name: string
	readonly person: number
	state: ImportState
	stop: (() => void) | undefined
	/** When somebody last asked for it (epoch ms). */
	usedAt: number
	/** All of it is in, and the file is removed. */
	gone?: boolean
	/** Rows that wait in a table of their own, to go into one that is there. */
	staged?: { readonly begun: Begun; readonly plan: ImportPlan }
	/** What it looks like before anybody settled anything: a large file need not be looked through twice. */
	looked?: Promise<Inspection>
}

const MAX_BYTES = 512 * 1024 * 1024
const KEPT_MS = 48 * 3_600_000
const SWEEP_MS = 3_600_000

export interface Imports {
	take(name: string, body: ReadableStream<Uint8Array>, actor: Actor): Promise<GivenImport>
	inspect(
		id: string,
		settings: Omit<InspectRequest, 'path' | 'name'>,
		actor: Actor,
		/** Whoever asked has gone: a large file is left. */
		signal?: AbortSignal
	): Promise<Inspection & { file: string }>
	/** `more`: other sheets of the file follow, so it is not removed when this one is in. */
	start(id: string, plan: unknown, actor: Actor, more?: boolean): Promise<void>
	/** Puts rows that were compared into their table; `state` tells how far it is and what came of it. */
	apply(id: string, partly: boolean, actor: Actor): void
	/** Takes the last file that was brought into a table out again. */
	undo(table: number, actor: Actor): Promise<Undone>
	state(id: string, actor: Actor): ImportState
	stop(id: string, actor: Actor): void
	/** Makes a file in the thread that reads files, and gives it to be sent; nothing of it stays on disk. */
	makeFile(file: Omit<FileToMake, 'path'>, pages: AsyncIterable<readonly WireRow[]>): Promise<ReadableStream>
	close(): Promise<void>
}

export function openImports(
	folder: string,
	importer: Importer,
	host: Pick<Threads, 'read' | 'write' | 'connectToWriter' | 'now'>
): Imports {
	const entries = new Map<string, Entry>()
	const sweep = setInterval(() => void sweepOld(), SWEEP_MS)
	sweep.unref()
	void sweepOld()

	/** What nobody brought in, and what an earlier run left. */
	async function sweepOld(): Promise<void> {
		const now = host.now()
		for (const [id, entry] of entries) {
			if (entry.state.state === 'running' || now - entry.usedAt <= KEPT_MS) continue
			entries.delete(id)
			await dropStaged(entry).catch((error: unknown) => console.error(error))
			await removeFile(entry.path)
		}
		await removeOld(folder, now)
	}

	/** A file that is refused is of no use to anybody: it goes at once. */
	async function dropRefused(id: string, entry: Entry, error: unknown): Promise<void> {
		if (!(error instanceof AppError) || error.code !== 'invalid' || entry.staged) return
		entries.delete(id)
		await removeFile(entry.path)
	}

	function get(id: string, actor: Actor): Entry {
		const entry = entries.get(id)
		if (!entry || entry.person !== actor.person)
			throw new AppError('not_found', 'This file is no longer here. Give it in again.')
		entry.usedAt = host.now()
		return entry
	}

	async function take(name: string, body: ReadableStream<Uint8Array>, actor: Actor): Promise<GivenImport> {
		await mkdir(folder, { recursive: true, mode: 0o700 })
		const id = randomUUID()
		// The file's own name is only ever shown; it never becomes a path.
		const path = join(folder, id)
		let size = 0
		const measure = new Transform({
			transform(chunk: Buffer, _encoding, next) {
				size += chunk.length
				next(
					size > MAX_BYTES
						? new AppError('invalid', `${name} is larger than ${MAX_BYTES / 1024 / 1024} MB. Split it first.`)
						: null,
					chunk
				)
			}
		})
		try {
			await pipeline(Readable.fromWeb(body as NodeStream), measure, createWriteStream(path, { mode: 0o600 }))
		} catch (error) {
			await rm(path, { force: true })
			throw error
		}
		entries.set(id, {
			path,
			name: name.slice(0, 200),
			person: actor.person,
			state: { state: 'given' },
			stop: undefined,
			usedAt: host.now()
		})
		return { id, name, size }
	}

	async function inspect(
		id: string,
		settings: Omit<InspectRequest, 'path' | 'name'>,
		actor: Actor,
		signal?: AbortSignal
	) {
		const { path, name, gone } = get(id, actor)
		if (gone) throw new AppError('not_found', `${name} has been brought in. Its table is listed at Sources.`)
		const entry = get(id, actor)
		const plain = Object.values(settings).every((value) => value === undefined)
		const looked = (plain ? entry.looked : undefined) ?? importer.inspect({ ...settings, path, name }, signal)
		if (plain) entry.looked = looked
		try {
			return { ...(await looked), file: name }
		} catch (error) {
			// One that was left, or could not be read with these settings, may be looked at again.
			delete entry.looked
			if (plain) await dropRefused(id, entry, error)
			throw error
		}
	}

	/** Returns once it is under way; `state` tells how far it is. */
	async function start(id: string, asked: unknown, actor: Actor, more = false): Promise<void> {
		const entry = get(id, actor)
		if (entry.state.state === 'running') throw new AppError('busy', 'This file is being brought in already.')
		const parsed = importPlanSchema.safeParse(asked)
		if (!parsed.success)
			throw new AppError('invalid', parsed.error.issues[0]?.message ?? 'The settings are not complete.', {
				issues: z.treeifyError(parsed.error)
			})
		const plan = parsed.data
		await dropStaged(entry)
		const begun = await host.write(plan.into ? 'beginMerge' : 'beginImport', { plan, actor })
		entry.state = { state: 'running', doing: 'reading', done: 0, of: 0 }
		const { port1, port2 } = new MessageChannel()
		host.connectToWriter(port1)
		const args = { path: entry.path, name: entry.name, plan, begun, now: host.now(), person: actor.person }
		const run = importer.bringIn(
			args,
			port2,
			({ done, of }) => (entry.state = { state: 'running', doing: 'reading', done, of })
		)
		entry.stop = run.stop
		const finish = plan.into ? compare : register
		void run.done
			.then((brought) => finish(entry, { begun, plan, actor, brought, more }))
			.catch((error: unknown) => fail(entry, begun, error, 'Nothing was brought in.'))
	}

	/** `remedy`: how things stand where the program itself failed. */
	async function fail(entry: Entry, begun: Begun, error: unknown, remedy: string): Promise<void> {
		await host.write('dropImport', { table: begun.table })
		delete entry.staged
		if (!(error instanceof AppError)) console.error(error)
		const message = error instanceof AppError ? error.message : `Something went wrong on our side. ${remedy}`
		entry.state = { state: 'failed', message }
	}

	/** Tells how far steps of the writer are, and stops them when it is asked to. */
	function watch(entry: Entry): Watch {
		let stopped = false
		entry.stop = () => (stopped = true)
		return {
			onProgress: (doing, done, of) => (entry.state = { state: 'running', doing, done, of }),
			isStopped: () => stopped
		}
	}

	interface Read {
		readonly begun: Begun
		readonly plan: ImportPlan
		readonly actor: Actor
		readonly brought: BroughtIn
		readonly more: boolean
	}

	async function register(entry: Entry, { begun, plan, actor, brought, more }: Read): Promise<void> {
		const { rows, references, ...told } = brought
		const { table } = await host.write('finishImport', {
			begun,
			plan,
			file: entry.name,
			rows,
			references,
			actor,
			now: host.now()
		})
		entry.state = { state: 'done', table, rows, ...told }
		if (more) return
		entry.gone = true
		await removeFile(entry.path)
	}

	async function compare(entry: Entry, { begun, plan, actor, brought }: Read): Promise<void> {
		const comparison = await compareInSteps(host, { begun, plan, actor, now: host.now() }, watch(entry))
		const { unread, unreadCount } = brought
		entry.staged = { begun, plan }
		entry.state = { state: 'compared', comparison, unread, unreadCount }
	}

	function apply(id: string, partly: boolean, actor: Actor): void {
		const entry = get(id, actor)
		const { state, staged } = entry
		if (state.state !== 'compared' || !staged) throw new AppError('invalid', 'Compare the file with the table first.')
		const { unread, unreadCount, comparison: expected } = state
		// Meanwhile it is neither compared nor in, so that a second press finds nothing to do.
		entry.state = { state: 'running', doing: 'comparing', done: 0, of: expected.rows }
		const asked = { ...staged, actor, now: host.now(), file: entry.name, expected, partly }
		void applyInSteps(host, asked, watch(entry))
			.then((outcome) => {
				if ('refused' in outcome) {
					const { refused: message, misfits, comparison } = outcome
					const refused = { message, misfits }
					entry.state = { state: 'compared', comparison, unread, unreadCount, refused }
				} else {
					entry.state = { state: 'merged', table: staged.plan.into?.table ?? 0, ...outcome.merged }
					delete entry.staged
				}
			})
			.catch((error: unknown) => fail(entry, staged.begun, error, 'What came in of it can be undone at Sources.'))
	}

	const undo = (table: number, actor: Actor) => undoInSteps(host, { table, actor, now: host.now() })

	async function dropStaged(entry: Entry): Promise<void> {
		if (entry.staged) await host.write('dropImport', { table: entry.staged.begun.table })
		delete entry.staged
	}

	async function makeFile(
		file: Omit<FileToMake, 'path'>,
		pages: AsyncIterable<readonly WireRow[]>
	): Promise<ReadableStream> {
		await mkdir(folder, { recursive: true, mode: 0o700 })
		const path = join(folder, randomUUID())
		try {
			await importer.beginFile({ ...file, path })
			try {
				for await (const rows of pages) await importer.addToFile(path, rows)
			} finally {
				await importer.endFile(path)
			}
			const made = await open(path)
			return Readable.toWeb(made.createReadStream()) as ReadableStream
		} finally {
			// What is open stays readable after its name is gone.
			await rm(path, { force: true })
		}
	}

	return {
		take,
		makeFile,
		inspect,
		start,
		apply,
		undo,
		state: (id, actor) => get(id, actor).state,
		stop: (id, actor) => get(id, actor).stop?.(),
		close: async () => {
			clearInterval(sweep)
			await importer.close()
		}
	}
}

/** A file, and what a database program puts beside one. */
async function removeFile(path: string): Promise<void> {
	for (const end of ['', '-wal', '-shm', '-journal']) await rm(`${path}${end}`, { force: true })
}

async function removeOld(folder: string, now: number): Promise<void> {
	for (const name of await readdir(folder).catch(() => [])) {
		const path = join(folder, name)
		if (now - (await stat(path)).mtimeMs > KEPT_MS) await rm(path, { force: true })
	}
}
