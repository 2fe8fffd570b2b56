/** One importer thread, asked from the main thread. */
import { Worker, type MessagePort } from 'node:worker_threads'
import { ownJson } from '$lib/core/text/own-json.ts'
import { AppError } from '$lib/core/app-error.ts'
import { toError, type Answer } from '../threads/protocol.ts'
import type { Progress } from '../sources/batch-writer.ts'

export interface ImporterThread {
	ask<T>(name: string, args: unknown, extra?: Extra): { readonly done: Promise<T>; readonly stop: () => void }
	/** Ends it at once; whatever it was at is refused in these words. */
	end(words: string): Promise<void>
}

export interface Extra {
	readonly port?: MessagePort
	readonly onProgress?: (progress: Progress) => void
}

interface Waiting {
	readonly resolve: (result: never) => void
	readonly reject: (error: Error) => void
	readonly onProgress?: ((progress: Progress) => void) | undefined
}

const TOO_LARGE =
	'This file takes more memory to read than there is for one. Save the sheet as CSV, or split it, and bring that in.'

/** `onGone`: told when it fell without having been ended; what was asked of it has been refused by then. */
export function startImporterThread(script: string, onGone: () => void): ImporterThread {
	// An import of a million rows stays under this; a file made to swell does not take the program with it. Room enough
	// for what is young keeps rows that are gone at once from growing old (16 MB: slower, and more memory in all).
	const worker = new Worker(script, { resourceLimits: { maxYoungGenerationSizeMb: 32, maxOldGenerationSizeMb: 4096 } })
	const waiting = new Map<number, Waiting>()
	let next = 1
	let isEnded = false

	worker.on('message', (message: 'ready' | Answer | { progress: Progress; id: number }) => {
		if (message === 'ready') return
		const asked = waiting.get(message.id)
		if ('progress' in message) return asked?.onProgress?.(message.progress)
		waiting.delete(message.id)
		// What its asker expects: the thread answers with the result of the function of that name.
		if (message.ok) asked?.resolve(ownJson(message.json))
		else asked?.reject(toError(message))
	})
	worker.on('error', (error: Error & { code?: string }) => {
		if (error.code !== 'ERR_WORKER_OUT_OF_MEMORY') console.error(error)
		refuseAll(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new AppError('invalid', TOO_LARGE) : error)
	})
	worker.on('exit', () => {
		refuseAll(new Error('Expected the importer to answer, but its thread ended'))
		if (!isEnded) onGone()
	})

	function refuseAll(error: Error): void {
		for (const asked of waiting.values()) asked.reject(error)
		waiting.clear()
	}

	return {
		ask(name, args, { port, onProgress } = {}) {
			const id = next++
			const done = new Promise<never>((resolve, reject) => {
				// The name asked for decides what comes back.
				waiting.set(id, { resolve: resolve as (result: never) => void, reject, onProgress })
				worker.postMessage({ id, name, args, port }, port ? [port] : [])
			})
			return { done, stop: () => worker.postMessage({ stop: id }) }
		},
		async end(words) {
			isEnded = true
			refuseAll(new AppError('busy', words))
			await worker.terminate()
		}
	}
}
