/**
 * The bytes of files that lie in cells: under `files/`, each by the SHA-256 of its content, so that no name becomes a path
 * and the same photo is kept once. Who may have which bytes is never decided here.
 */
import { createHash, randomUUID } from 'node:crypto'
import { fileTypeFromFile } from 'file-type'
import { createReadStream, createWriteStream, rmSync } from 'node:fs'
import { mkdir, open, rename, rm, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { AppError } from '$lib/core/app-error.ts'
import { MOST_BYTES, plainFileName, showSize, type Attachment } from '$lib/core/capture/attachment.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { newToken } from '../base/token.ts'

export interface GivenFile {
	readonly column: number
	readonly name: string
	readonly body: ReadableStream<Uint8Array>
	readonly actor: Actor
}

export interface FileStore {
	/** Takes a file in for a column; the token puts it into one cell, by its giver alone. */
	take(given: GivenFile): Promise<{ token: string; file: Attachment }>
	/** The bytes of a file that was read through the door; undefined if they are not there. */
	read(sha: string): Promise<ReadableStream<Uint8Array> | undefined>
	/** Removes what no cell took up. */
	sweep(): Promise<void>
	close(): void
}

const SWEEP_EVERY_MS = 6 * 3_600_000

/** The bytes of files that were given in, by their digest, in one folder. */
export function openFileStore(folder: string, host: Pick<Threads, 'read' | 'write' | 'now'>): FileStore {
	const incoming = join(folder, 'incoming')
	/** Taken in since the last sweep began: these may be known only since it asked. */
	let recent = new Set<string>()
	const timer = setInterval(() => void sweep().catch(report), SWEEP_EVERY_MS)
	timer.unref()
	rmSync(incoming, { recursive: true, force: true })
	void sweep().catch(report)

	async function take({ body, name, ...place }: GivenFile) {
		const asked = { ...place, now: host.now() }
		await host.read('checkUpload', asked)
		await mkdir(incoming, { recursive: true, mode: 0o700 })
		const path = join(incoming, randomUUID())
		try {
			const { sha, size } = await write(body, path, name)
			const type = await typeOf(path)
			recent.add(sha)
			await settle(path, pathOf(folder, sha))
			const token = newToken()
			const file = { name: plainFileName(name), type, size, sha }
			return { token, file: await host.write('noteUpload', { ...asked, token, file }) }
		} finally {
			await rm(path, { force: true })
		}
	}

	async function read(sha: string) {
		const path = pathOf(folder, sha)
		const there = await stat(path).catch(() => undefined)
		// Node's type of a web stream and the platform's are two.
		return there && (Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>)
	}

	async function sweep(): Promise<void> {
		recent = new Set()
		for (const sha of await host.write('dropOldUploads', { now: host.now() }))
			if (!recent.has(sha)) await rm(pathOf(folder, sha), { force: true })
	}

	return { take, read, sweep, close: () => clearInterval(timer) }
}

function pathOf(folder: string, sha: string): string {
	if (!/^[0-9a-f]{64}$/.test(sha)) throw new Error('Expected a SHA-256 as hex')
	return join(folder, sha.slice(0, 2), sha)
}

async function write(body: ReadableStream<Uint8Array>, path: string, name: string) {
	const hash = createHash('sha256')
	let size = 0
	const measure = new Transform({
		transform(chunk: Buffer, _encoding, next) {
			size += chunk.length
			hash.update(chunk)
			next(size > MOST_BYTES ? tooLarge(name) : null, chunk)
		}
	})
	// Node's type of a web stream and the platform's are two.
	await pipeline(Readable.fromWeb(body as NodeStream), measure, createWriteStream(path, { mode: 0o600, flush: true }))
	if (size === 0) throw new AppError('invalid', 'This file is empty. Choose another.')
	return { sha: hash.digest('hex'), size }
}

function tooLarge(name: string): AppError {
	return new AppError(
		'invalid',
		`${plainFileName(name)} is larger than ${showSize(MOST_BYTES)}. Make it smaller first.`
	)
}

/** By content, never by what it is called. What is not recognised is offered for saving only. */
async function typeOf(path: string): Promise<string> {
	const found = await fileTypeFromFile(path).catch(() => undefined)
	return found?.mime ?? 'application/octet-stream'
}

/** In its place for good, also after a power cut: the name is written down as well as the bytes. */
async function settle(from: string, to: string): Promise<void> {
	await mkdir(dirname(to), { recursive: true, mode: 0o700 })
	await rename(from, to)
	const folder = await open(dirname(to), 'r')
	await folder.sync().finally(() => folder.close())
}

function report(error: unknown): void {
	console.error('Cannot tidy the files that nobody took up:', error)
}
