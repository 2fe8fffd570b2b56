/** Bytes on their way in: written aside and measured, then moved to the place that the SHA-256 of their content says. */
import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { fileTypeFromFile } from 'file-type'
import { mkdir, open, rename, rm } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import type { ReadableStream as NodeStream } from 'node:stream/web'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { AppError } from '$lib/core/app-error.ts'
import { MOST_BYTES, plainFileName, showSize } from '$lib/core/capture/attachment.ts'

export interface Received {
	/** Where it lies meanwhile. */
	readonly path: string
	readonly sha: string
	readonly size: number
	/** Its media type, found from its content. */
	readonly type: string
}

/** Takes a file in, gives it to `use`, and takes away what is left of it afterwards. */
export async function receive<T>(
	folder: string,
	{ name, body }: { readonly name: string; readonly body: ReadableStream<Uint8Array> },
	use: (received: Received) => Promise<T>
): Promise<T> {
	const incoming = incomingOf(folder)
	await mkdir(incoming, { recursive: true, mode: 0o700 })
	const path = join(incoming, randomUUID())
	try {
		const { sha, size } = await write(body, path, name)
		return await use({ path, sha, size, type: await typeOf(path) })
	} finally {
		await rm(path, { force: true })
	}
}

export function incomingOf(folder: string): string {
	return join(folder, 'incoming')
}

export function pathOf(folder: string, sha: string): string {
	if (!/^[0-9a-f]{64}$/.test(sha)) throw new Error('Expected a SHA-256 as hex')
	return join(folder, sha.slice(0, 2), sha)
}

/** In its place for good, also after a power cut: the name is written down as well as the bytes. */
export async function settle(from: string, to: string): Promise<void> {
	await mkdir(dirname(to), { recursive: true, mode: 0o700 })
	await rename(from, to)
	const folder = await open(dirname(to), 'r')
	await folder.sync().finally(() => folder.close())
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
