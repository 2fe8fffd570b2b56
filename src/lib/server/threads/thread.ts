/** One thread, asked from the main thread: questions by name, answers as promises. */
import { Worker, type MessagePort } from 'node:worker_threads'
import { toError, type Answer, type Lacking, type ThreadData, type ThreadStart, type Turned } from './protocol.ts'
import { makeStops, stopQuestion } from './stops.ts'

export interface Thread {
	/** The result as JSON text. `signal`: nobody waits for it any more; then it ends in a refusal, soon. */
	ask(name: string, args: unknown, signal?: AbortSignal): Promise<string>
	/** Hands a port over, by which another thread talks to this one. */
	connect(port: MessagePort): void
	close(): Promise<void>
}

interface Waiting {
	readonly resolve: (json: string) => void
	readonly reject: (error: Error) => void
}

export function startThread(
	script: string,
	data: ThreadData,
	onNews: (news: Turned | Lacking) => void
): Promise<Thread> {
	const stops = makeStops()
	const worker = new Worker(script, { workerData: { ...data, stops } satisfies ThreadStart })
	const waiting = new Map<number, Waiting>()
	let next = 1
	let closing = false

	const thread: Thread = {
		ask(name, args, signal) {
			const id = next++
			if (signal?.aborted) stopQuestion(stops, id)
			else signal?.addEventListener('abort', () => stopQuestion(stops, id), { once: true })
			return new Promise((resolve, reject) => {
				waiting.set(id, { resolve, reject })
				worker.postMessage({ id, name, args })
			})
		},
		connect(port) {
			worker.postMessage({ port }, [port])
		},
		async close() {
			closing = true
			await worker.terminate()
		}
	}

	return new Promise((resolve, reject) => {
		worker.on('message', (message: 'ready' | Answer | Turned | Lacking) => {
			if (message === 'ready') return resolve(thread)
			if ('turned' in message || 'wanted' in message) return onNews(message)
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
		// Without its connections the program is no use: better to stop and be started again than to hang.
		worker.on('exit', () => {
			if (!closing) process.exit(70)
		})
	})
}
