/**
 * The bytes of files that lie in cells: under `files/`, each by the SHA-256 of its content, so that no name becomes a path
 * and the same photo is kept once. Who may have which bytes is never decided here.
 */
import { createReadStream, rmSync } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { plainFileName, type Attachment } from '$lib/core/capture/attachment.ts'
import type { Threads } from '../threads/threads.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { newToken } from '../base/token.ts'
import { incomingOf, pathOf, receive, settle } from './incoming.ts'

export interface GivenFile {
	readonly column: number
	readonly name: string
	readonly body: ReadableStream<Uint8Array>
	readonly actor: Actor
}

/** From the first byte to the last, both counted in. */
export interface ByteRange {
	readonly start: number
	readonly end: number
}

export interface FileStore {
	/** Takes a file in for a column; the token puts it into one cell, by its giver alone. */
	take(given: GivenFile): Promise<{ token: string; file: Attachment }>
	/** The bytes of a file that was read through the door, or some of them; undefined if they are not there. */
	read(sha: string, range?: ByteRange): Promise<ReadableStream<Uint8Array> | undefined>
	/** Removes what no cell took up, and what no app shows. */
	sweep(): Promise<void>
	close(): void
}

const SWEEP_EVERY_MS = 6 * 3_600_000

/** The bytes of files that were given in, by their digest, in one folder. */
export function openFileStore(folder: string, host: Pick<Threads, 'read' | 'write' | 'now'>): FileStore {
	/** Taken in since the last sweep began: these may be known only since it asked. */
	let recent = new Set<string>()
	const timer = setInterval(() => void sweep().catch(report), SWEEP_EVERY_MS)
	timer.unref()
	rmSync(incomingOf(folder), { recursive: true, force: true })
	void sweep().catch(report)

	async function take({ body, name, ...place }: GivenFile) {
		const asked = { ...place, now: host.now() }
		await host.read('checkUpload', asked)
		return receive(folder, { name, body }, async ({ path, sha, size, type }) => {
			recent.add(sha)
			await settle(path, pathOf(folder, sha))
			const token = newToken()
			const file = { name: plainFileName(name), type, size, sha }
			return { token, file: await host.write('noteUpload', { ...asked, token, file }) }
		})
	}

	async function read(sha: string, range?: ByteRange) {
		const path = pathOf(folder, sha)
		const there = await stat(path).catch(() => undefined)
		// Node's type of a web stream and the platform's are two.
		return there && (Readable.toWeb(createReadStream(path, range)) as ReadableStream<Uint8Array>)
	}

	async function sweep(): Promise<void> {
		recent = new Set()
		const now = host.now()
		const dropped = [
			...(await host.write('dropOldUploads', { now })),
			...(await host.write('dropUnusedAppFiles', { now }))
		]
		for (const sha of dropped) if (!recent.has(sha)) await rm(pathOf(folder, sha), { force: true })
	}

	return { take, read, sweep, close: () => clearInterval(timer) }
}

function report(error: unknown): void {
	console.error('Cannot tidy the files that nobody took up:', error)
}
