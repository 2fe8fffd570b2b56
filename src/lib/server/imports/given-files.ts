/** Files that were given in, on disk under names of ours. A file belongs to who gave it; nobody else can look at it. */
import { createWriteStream } from 'node:fs'
import { mkdir, readdir, rm, stat } from 'node:fs/promises'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { AppError } from '$lib/core/app-error.ts'
import type { ImportPlan } from '$lib/core/exchange/plan.ts'
import type { GivenImport, ImportState, Inspection } from '$lib/core/requests/imports.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Begun } from '../sources/bring-in.ts'

export interface GivenFile {
	readonly id: string
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

export interface GivenFiles {
	take(name: string, body: ReadableStream<Uint8Array>, actor: Actor): Promise<GivenImport>
	/** Whoever asks for a file uses it. */
	get(id: string, actor: Actor): GivenFile
	/** Those that nobody used for 48 hours, nor is bringing in. */
	old(): readonly GivenFile[]
	remove(file: GivenFile): Promise<void>
	/** What an earlier run of the program left. */
	sweepFolder(): Promise<void>
}

const MAX_BYTES = 512 * 1024 * 1024
const RETENTION_MS = 48 * 3_600_000

/** @param now epoch ms */
export function openGivenFiles(folder: string, now: () => number): GivenFiles {
	const files = new Map<string, GivenFile>()
	return {
		async take(name, body, actor) {
			await mkdir(folder, { recursive: true, mode: 0o700 })
			const id = randomUUID()
			// The file's own name is only ever shown; it never becomes a path.
			const path = join(folder, id)
			const size = await writeTo(path, name, body)
			const state = { state: 'given' } as const
			const given = { id, path, name: name.slice(0, 200), person: actor.person, state, stop: undefined, usedAt: now() }
			files.set(id, given)
			return { id, name, size }
		},
		get(id, actor) {
			const file = files.get(id)
			if (!file || file.person !== actor.person)
				throw new AppError('not_found', 'This file is no longer here. Give it in again.')
			file.usedAt = now()
			return file
		},
		old: () =>
			[...files.values()].filter(({ state, usedAt }) => state.state !== 'running' && now() - usedAt > RETENTION_MS),
		async remove(file) {
			files.delete(file.id)
			await removeBytes(file.path)
		},
		sweepFolder: () => removeOld(folder, now())
	}
}

/** A file's bytes, and what a database program puts beside one. */
export async function removeBytes(path: string): Promise<void> {
	for (const end of ['', '-wal', '-shm', '-journal']) await rm(`${path}${end}`, { force: true })
}

/** Gives how many bytes there were. */
async function writeTo(path: string, name: string, body: ReadableStream<Uint8Array>): Promise<number> {
	let size = 0
	const tooLarge = () =>
		new AppError('invalid', `${name} is larger than ${MAX_BYTES / 1024 / 1024} MB. Split it first.`)
	const measure = new Transform({
		transform(chunk: Buffer, _encoding, next) {
			size += chunk.length
			next(size > MAX_BYTES ? tooLarge() : null, chunk)
		}
	})
	try {
		// The stream of a request is the one that Node reads; only their types differ.
		await pipeline(Readable.fromWeb(body as NodeStream), measure, createWriteStream(path, { mode: 0o600 }))
	} catch (error) {
		await rm(path, { force: true })
		throw error
	}
	return size
}

async function removeOld(folder: string, now: number): Promise<void> {
	for (const name of await readdir(folder).catch(() => [])) {
		const path = join(folder, name)
		if (now - (await stat(path)).mtimeMs > RETENTION_MS) await rm(path, { force: true })
	}
}
