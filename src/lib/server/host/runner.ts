/**
 * Keeps the queue moving: wakes when something was queued or falls due, works off what stays inside, and hands what
 * leaves to the post. A message that fails is tried again later; its Message-ID stays the same.
 */
import type { Post } from '../stand-ins/mail.ts'
import type { Threads } from '../threads/threads.ts'

export interface Runner {
	wake(): void
	close(): Promise<void>
}

export interface RunnerParts {
	readonly host: Pick<Threads, 'read' | 'write' | 'now'>
	readonly post: Post
	/** Where links in messages lead. */
	readonly origin: string
	/** A name for this run of the program. */
	readonly worker: string
	/** Told what is about to happen; tests stop the program there. */
	readonly at?: ((step: 'claimed' | 'sent' | 'finished') => void) | undefined
}

export function startRunner({ host, post, origin, worker, at = () => undefined }: RunnerParts): Runner {
	let running: Promise<void> | undefined
	let again = false
	let closed = false
	let timer: NodeJS.Timeout | undefined

	async function workOff(): Promise<void> {
		while (!closed && (await host.write('runInsideJob', { worker, now: host.now() })));
		while (!closed && (await sendNext()));
		const { nextAt } = await host.read('queue', undefined)
		clearTimeout(timer)
		if (nextAt !== null && !closed) timer = setTimeout(wake, Math.min(60_000, Math.max(50, nextAt - host.now())))
	}

	async function sendNext(): Promise<boolean> {
		const posting = await host.write('claimPosting', { worker, now: host.now() })
		if (!posting) return false
		at('claimed')
		const { job, id, message, to } = posting
		try {
			const link = message.link === null ? '' : `\n\n${origin}${message.link}`
			await post.send({ messageId: message.messageId, to, subject: message.subject, text: message.body + link })
			at('sent')
			await host.write('finishPosting', { job: job.id, id, worker, now: host.now() })
			at('finished')
		} catch (error) {
			await host.write('putOffPosting', { job, worker, now: host.now(), error: String(error) })
		}
		return true
	}

	function wake(): void {
		if (closed) return
		if (running) {
			again = true
			return
		}
		running = workOff()
			.catch((error: unknown) => console.error('Cannot work off the queue:', error))
			.finally(() => {
				running = undefined
				if (again) {
					again = false
					wake()
				}
			})
	}

	wake()
	return {
		wake,
		async close() {
			closed = true
			clearTimeout(timer)
			await running
		}
	}
}
