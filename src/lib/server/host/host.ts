/**
 * The main thread's hold on the workspace: the writer, the readers, the importer, the post and the queue. It holds no
 * connection of its own; every read and write is asked of a thread.
 */
import { randomUUID } from 'node:crypto'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { lockWorkspace } from '../base/lock.ts'
import { openFileStore, type FileStore } from '../files/file-store.ts'
import { startRunner, type Runner, type RunnerParts } from './runner.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { openLooks, type Looks } from '../people/looks.ts'
import { openStandIn, type StandIn, type StandInPerson } from '../sign-in/stand-in-provider.ts'
import { RETURN_PATH } from '../sign-in/outside-sign-in.ts'
import { openPost, type Post } from './stand-in.ts'
import { openImporter } from '../imports/importer.ts'
import { openImports, type Imports } from '../imports/imports.ts'
import { startIndexing } from './indexing.ts'
import { readKey } from '../base/workspace-key.ts'
import { openTries, type Tries } from './tries.ts'
import { watchHealth } from '../store/store-health.ts'
import type { WantedOrder } from '../store/store.ts'
import type { Turned } from '../threads/protocol.ts'
import { openReaders } from '../threads/readers.ts'
import { startThread } from '../threads/thread.ts'
import type { Site, Threads } from '../threads/threads.ts'

export interface Host extends Site {
	readonly imports: Imports
	readonly looks: Looks
	/** Copies that builders try things on. */
	readonly tries: Tries
	readonly files: FileStore
	/** The stand-in for a provider of sign-in; in a demo only. */
	readonly standIn: StandIn | undefined
	readonly folder: string
	/** Whether the last small write went well. */
	isWell(): boolean
	close(): Promise<void>
}

export interface HostPlace {
	/** Where the workspace lies. */
	readonly folder: string
	/** Where the threads' scripts lie. */
	readonly scripts: string
	readonly origin: string
	/** Told what the queue is about to do. */
	readonly at?: RunnerParts['at']
}

const READERS = 2
/** While some work at what takes long, others are started. */
const MOST_READERS = 6

/** Who asks, as reads name it: whoever looks as somebody else asks for themselves. */
function personIn(args: unknown): number | undefined {
	if (typeof args !== 'object' || args === null || !('actor' in args)) return undefined
	const { person, lookedAtBy } = args.actor as Actor
	return lookedAtBy ?? person
}

export async function openHost(place: HostPlace): Promise<Host> {
	mkdirSync(place.folder, { recursive: true, mode: 0o700 })
	const unlock = lockWorkspace(place.folder)
	try {
		return await openLocked(place, unlock)
	} catch (error) {
		unlock()
		throw error
	}
}

async function openLocked({ folder, scripts, origin, at }: HostPlace, unlock: () => void): Promise<Host> {
	const data = { file: join(folder, 'workspace.db'), key: readKey(folder) }
	const listeners = new Set<(turned: Turned['turned']) => void>()
	const queue: { runner?: Runner } = {}
	/** Orders for which rows were asked and no index served, since the start. */
	const wanted = new Map<string, WantedOrder>()
	const indexes = startIndexing(() => parts.write('tendIndexes', { wanted: [...wanted.values()] }))

	/** When each table, and who may see what, last changed. */
	const turnedAt = new Map<number | 'access', number>()

	const noteWanted = (all: readonly WantedOrder[]): void => {
		for (const each of all) {
			const name = `${each.table} ${each.column}`
			// One that was not made was looked at, and had no place.
			if (!wanted.has(name)) indexes.wake()
			wanted.set(name, each)
		}
	}
	const tell = (turned: Turned['turned']): void => {
		for (const each of [...turned.tables, ...(turned.access ? (['access'] as const) : [])])
			turnedAt.set(each, Date.now())
		for (const listener of listeners) listener(turned)
		if (turned.jobs) queue.runner?.wake()
		// A table may have come in that is large enough to be indexed.
		if (turned.access) indexes.wake()
	}
	const writer = await startThread(join(scripts, 'writer.js'), data, (news) => tell(news.turned))
	const readers = await openReaders({
		script: join(scripts, 'reader.js'),
		data,
		onNews: (news) => noteWanted(news.wanted),
		least: READERS,
		most: MOST_READERS
	})

	const parse = <T>(json: string): T => JSON.parse(json) as T
	const ask = (name: string, args: unknown, signal?: AbortSignal): Promise<string> =>
		readers.ask(name, args, { signal, person: personIn(args) })

	const parts: Threads = {
		read: async (name, args, signal) => parse(await ask(name, args, signal)),
		readJson: (name, args, signal) => ask(name, args, signal),
		write: async (name, args) => parse(await writer.ask(name, args)),
		onTurned: (listener) => {
			listeners.add(listener)
			return () => listeners.delete(listener)
		},
		hasTurnedSince: (since, tables) =>
			[...turnedAt].some(([what, at]) => at >= since && (what === 'access' || tables.has(what))),
		connectToWriter: (port) => writer.connect(port),
		now: () => Date.now()
	}

	await parts.write('dropUnregistered', { now: Date.now() })
	const importer = openImporter(join(scripts, 'importer.js'))
	const imports = openImports(join(folder, 'staging'), importer, parts)
	const tries = openTries({ folder, scripts, key: data.key, now: parts.now, copy: importer.copyDatabase })
	const files = openFileStore(join(folder, 'files'), parts)
	const post: Post = await openPost((message) => parts.write('takeMessage', { ...message, now: parts.now() }))
	const { demo } = await parts.read('workspace', undefined)
	const standIn = demo ? await openStandIn(() => standInPeople(parts), origin + RETURN_PATH) : undefined
	const health = watchHealth(() => parts.write('tryWrite', { now: parts.now() }))
	indexes.wake()
	queue.runner = startRunner({ host: parts, post, origin, worker: randomUUID(), ...(at ? { at } : {}) })

	async function close(): Promise<void> {
		files.close()
		health.close()
		await queue.runner?.close()
		await indexes.close()
		await tries.close()
		await Promise.all([post.close(), standIn?.close(), imports.close(), readers.close()])
		await writer.close()
		unlock()
	}

	return {
		...parts,
		isWell: health.isWell,
		imports,
		looks: openLooks(parts.now),
		tries,
		files,
		standIn,
		folder,
		origin,
		key: data.key,
		close
	}
}

/** The demo's people, and two who are nobody here: one it vouches for, one whose address it does not know to be theirs. */
async function standInPeople(host: Pick<Host, 'read'>): Promise<StandInPerson[]> {
	const people = await host.read('people', undefined)
	const known = await Promise.all(people.map(({ person }) => host.read('person', { person })))
	return [
		...known.flatMap((who) =>
			who?.email ? [{ subject: `p${who.person}`, name: who.name, email: who.email, vouched: true }] : []
		),
		{ subject: 'x1', name: 'Hedda Lisle', email: 'hedda.lisle@brig.example', vouched: true },
		{ subject: 'x2', name: 'Corin Abel', email: 'corin.abel@varrow.example', vouched: false }
	]
}
