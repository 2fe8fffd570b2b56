/** One thread, asked from the main thread: questions by name, answers as promises. */
import { Worker, type MessagePort } from 'node:worker_threads'
import { toError, type Answer, type ThreadData, type ChangeNotice, type Changed } from './protocol.ts'

export interface Thread {
	/** The result as JSON text. */
	ask(name: string, args: unknown): Promise<string>
	/** Hands a port over, by which another thread talks to this one. */
	connect(port: MessagePort): void
	close(): Promise<void>
}

interface Waiting {
	readonly resolve: (json: string) => void
	readonly reject: (error: Error) => void
}

/** Resolves once the thread is ready; it answers asks in JSON, and tells what changed. */
export function startThread(
	script: string,
	data: ThreadData,
	onChange: (notice: ChangeNotice) => void
): Promise<Thread> {
	const worker = new Worker(script, { workerData: data })
	const waiting = new Map<number, Waiting>()
	let next = 1
	let closing = false
	let isReady = false

	const thread: Thread = {
		ask(name, args) {
			const id = next++
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
		worker.on('message', (message: 'ready' | Answer | Changed) => {
			if (message === 'ready') {
				isReady = true
				return resolve(thread)
			}
			if ('changed' in message) return onChange(message.changed)
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
		// Without its connections the program is no use: better to stop and be started again than to hang. One that never began
		// has said why, and whoever starts the program is told.
		worker.on('exit', () => {
			if (isReady && !closing) process.exit(70)
		})
	})
}
