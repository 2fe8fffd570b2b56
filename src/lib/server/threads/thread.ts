/** One thread, asked from the main thread: questions by name, answers as promises. */
import { Worker } from 'node:worker_threads'
import { toError, type Answer, type ThreadData, type Turned } from './protocol.ts'

export interface Thread {
	/** The result as JSON text. */
	ask(name: string, args: unknown): Promise<string>
	/** How many questions wait for an answer. */
	readonly waiting: number
	close(): Promise<void>
}

interface Waiting {
	readonly resolve: (json: string) => void
	readonly reject: (error: Error) => void
}

export function startThread(script: string, data: ThreadData, onTurned: (turned: Turned['turned']) => void): Promise<Thread> {
	const worker = new Worker(script, { workerData: data })
	const waiting = new Map<number, Waiting>()
	let next = 1

	const thread: Thread = {
		ask(name, args) {
			const id = next++
			return new Promise((resolve, reject) => {
				waiting.set(id, { resolve, reject })
				worker.postMessage({ id, name, args })
			})
		},
		get waiting() {
			return waiting.size
		},
		async close() {
			await Promise.allSettled([...waiting.values()].map(() => Promise.resolve()))
			await worker.terminate()
		}
	}

	return new Promise((resolve, reject) => {
		worker.on('message', (message: 'ready' | Answer | Turned) => {
			if (message === 'ready') return resolve(thread)
			if ('turned' in message) return onTurned(message.turned)
			const asked = waiting.get(message.id)
			waiting.delete(message.id)
			if (message.ok) asked?.resolve(message.json)
			else asked?.reject(toError(message))
		})
		worker.on('error', (error) => {
			reject(error)
			for (const asked of waiting.values()) asked.reject(error)
			waiting.clear()
		})
	})
}
