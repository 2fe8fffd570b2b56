/**
 * One reader: a process of its own, since a statement that runs too long inside the database ends with its process at the
 * latest, and with nothing less (decision 17). It answers one question at a time.
 */
import { fork } from 'node:child_process'
import { makeStopFlag } from './stop-flag.ts'
import type { Answer, Lacking, ThreadData } from './protocol.ts'

/** The descriptor under which a reader finds its flag. */
export const FLAG_FD = 4
/** What a formula may gather in memory before its reader falls, and with it nothing else. */
const MOST_MB = 768

export interface ReaderProcess {
	/** `signal`: nobody waits for it any more; then it ends in a refusal, soon. */
	ask(question: { readonly id: number; readonly name: string; readonly args: unknown }): Promise<Answer>
	/** Asks it to leave the question that it is at. */
	stop(id: number): void
	/** Ends it at once, whatever it is at; what was asked of it is refused. */
	kill(): void
}

export interface ReaderParts {
	readonly script: string
	readonly data: ThreadData
	readonly onNews: (news: Lacking) => void
	/** Told when it is gone without having been ended. */
	readonly onGone: () => void
}

export function startReader({ script, data, onNews, onGone }: ReaderParts): Promise<ReaderProcess> {
	const flag = makeStopFlag()
	const child = fork(script, {
		execArgv: [`--max-old-space-size=${MOST_MB}`],
		serialization: 'advanced',
		stdio: ['ignore', 'inherit', 'inherit', 'ipc', flag.fd]
	})
	let waiting:
		| { readonly id: number; readonly resolve: (answer: Answer) => void; readonly reject: (error: Error) => void }
		| undefined
	let isEnded = false

	const reader: ReaderProcess = {
		ask(question) {
			return new Promise((resolve, reject) => {
				waiting = { id: question.id, resolve, reject }
				child.send(question)
			})
		},
		stop: (id) => flag.stop(id),
		kill() {
			isEnded = true
			child.kill('SIGKILL')
		}
	}

	return new Promise((resolve, reject) => {
		child.on('message', (message: 'ready' | Answer | Lacking) => {
			if (message === 'ready') return resolve(reader)
			if ('wanted' in message) return onNews(message)
			const asked = waiting?.id === message.id ? waiting : undefined
			waiting = undefined
			asked?.resolve(message)
		})
		child.on('error', reject)
		child.once('exit', () => {
			flag.close()
			const error = new Error('Expected the reader to answer, but its process ended')
			reject(error)
			waiting?.reject(error)
			if (!isEnded) onGone()
		})
		child.send(data)
	})
}
