/** The importer thread, asked from the main thread. */
import { Worker, type MessagePort } from 'node:worker_threads'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { FileToMake } from '../exports/make-file.ts'
import { toError, type Answer } from '../threads/protocol.ts'
import type { BringIn, BroughtIn, Progress } from './bring-in.ts'
import type { InspectRequest, Inspection } from './inspect.ts'

export interface Importer {
	inspect(request: InspectRequest): Promise<Inspection>
	/** Makes a file page by page, from its beginning to its end. */
	beginFile(file: FileToMake): Promise<void>
	addToFile(path: string, rows: readonly WireRow[]): Promise<void>
	endFile(path: string): Promise<void>
	copyDatabase(from: string, to: string): Promise<void>
	bringIn(
		args: BringIn,
		port: MessagePort,
		onProgress: (progress: Progress) => void
	): { done: Promise<BroughtIn>; stop: () => void }
	close(): Promise<void>
}

interface Waiting {
	readonly resolve: (result: never) => void
	readonly reject: (error: Error) => void
	readonly onProgress?: (progress: Progress) => void
}

export function startImporter(script: string): Importer {
	// An import of a million rows stays under this; a file made to swell does not take the program with it. Room enough
	// for what is young keeps rows that are gone at once from growing old (16 MB: slower, and more memory in all).
	const worker = new Worker(script, { resourceLimits: { maxYoungGenerationSizeMb: 32, maxOldGenerationSizeMb: 4096 } })
	const waiting = new Map<number, Waiting>()
	let next = 1

	worker.on('message', (message: 'ready' | Answer | { progress: Progress; id: number }) => {
		if (message === 'ready') return
		const asked = waiting.get(message.id)
		if ('progress' in message) return asked?.onProgress?.(message.progress)
		waiting.delete(message.id)
		if (message.ok) asked?.resolve(JSON.parse(message.json) as never)
		else asked?.reject(toError(message))
	})
	worker.on('error', (error) => {
		for (const asked of waiting.values()) asked.reject(error instanceof Error ? error : new Error(String(error)))
		waiting.clear()
	})

	function ask<T>(
		name: string,
		args: unknown,
		extra: { port?: MessagePort; onProgress?: (progress: Progress) => void } = {}
	) {
		const id = next++
		const { port, onProgress } = extra
		const done = new Promise<T>((resolve, reject) => {
			waiting.set(id, { resolve: resolve as (result: never) => void, reject, ...(onProgress ? { onProgress } : {}) })
			worker.postMessage({ id, name, args, port }, port ? [port] : [])
		})
		return { id, done }
	}

	return {
		beginFile: async (file) => void (await ask('beginFile', file).done),
		addToFile: async (path, rows) => void (await ask('addToFile', { path, rows }).done),
		endFile: async (path) => void (await ask('endFile', { path }).done),
		copyDatabase: async (from, to) => void (await ask('copyDatabase', { from, to }).done),
		inspect: (request) => ask<Inspection>('inspect', request).done,
		bringIn: (args, port, onProgress) => {
			const { id, done } = ask<BroughtIn>('bringIn', args, { port, onProgress })
			return { done, stop: () => worker.postMessage({ stop: id }) }
		},
		close: async () => {
			await worker.terminate()
		}
	}
}
