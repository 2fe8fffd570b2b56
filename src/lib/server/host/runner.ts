/**
 * Keeps the queue moving: wakes when something was begun or falls due, goes on with what stays inside, and hands what
 * leaves to the post. A message that fails is tried again later; its Message-ID stays the same.
 */
import { mailHtml } from '../post/mail-html.ts'
import type { Outside } from '../outside/outside.ts'
import { sendPush, type PushKeys } from './send-push.ts'
import { sendCall } from './send-call.ts'
import type { Post } from '../post/smtp.ts'
import { writeReport, type ReportWriter } from './write-report.ts'
import { reportText } from '$lib/core/requests/report.ts'
import type { Threads } from '../threads/threads.ts'

export interface Runner {
	wake(): void
	close(): Promise<void>
}

export interface RunnerParts {
	readonly host: Pick<Threads, 'read' | 'write' | 'now'>
	readonly post: Post
	/** By which files are made that come with reports. */
	readonly imports: ReportWriter['imports']
	/** Where the bytes of pictures lie that stand in documents. */
	readonly files: ReportWriter['files']
	/** How calls leave for other programs, and the key that seals their secrets. */
	readonly outside: Outside
	readonly key: string
	/** By which push services know this workspace. */
	readonly pushKeys: PushKeys
	/** Where links in messages lead. */
	readonly origin: string
	/** A name for this run of the program. */
	readonly worker: string
	/** Told what has happened, of a message its subject; tests stop the program there. */
	readonly at?: ((step: 'ran' | 'claimed' | 'sent' | 'finished', subject: string) => void) | undefined
}

export function startRunner({
	host,
	post,
	imports,
	files,
	outside,
	key,
	pushKeys,
	origin,
	worker,
	at = () => undefined
}: RunnerParts): Runner {
	let running: Promise<void> | undefined
	let again = false
	let closed = false
	let timer: NodeJS.Timeout | undefined

	async function workOff(): Promise<void> {
		// By turns, so that nobody's message waits for very many steps inside.
		for (let isLeft = true; isLeft && !closed;) {
			const inside = await goOnInside()
			const written = !closed && (await writeReport({ host, imports, files, worker }))
			const sent = !closed && (await sendNext())
			const told = !closed && (await sendPush({ host, outside, pushKeys, origin, worker }))
			const called = !closed && (await sendCall({ host, outside, key }))
			isLeft = inside || written || sent || told || called
		}
		const { nextAt, clockAt } = await host.read('queue', undefined)
		clearTimeout(timer)
		const at = Math.min(nextAt ?? Infinity, clockAt ?? Infinity)
		if (at !== Infinity && !closed) timer = setTimeout(wake, Math.min(60_000, Math.max(50, at - host.now())))
	}

	async function goOnInside(): Promise<boolean> {
		const now = host.now()
		const fired = await host.write('fireClocks', { now })
		const released = await host.write('runInsideJob', { worker, now })
		const ran = await host.write('runRoutines', { now })
		if (ran) at('ran', '')
		return fired || released || ran
	}

	async function sendNext(): Promise<boolean> {
		const posting = await host.write('claimPosting', { worker, now: host.now() })
		if (!posting) return false
		const { job, id, message, to } = posting
		at('claimed', message.subject)
		try {
			const { messageId, subject, body, report, file } = message
			const link = message.link === null ? undefined : origin + message.link
			const { name: from } = await host.read('workspace', undefined)
			const rows = report ? [reportText(report, file !== null)] : []
			const text = [body, ...rows, ...(link === undefined ? [] : [link])].filter((part) => part !== '').join('\n\n')
			const html = mailHtml({ from, subject, text: body, report, fileName: file?.name, link })
			await post.send({ messageId, to, subject, text, html, file })
			at('sent', message.subject)
			await host.write('finishPosting', { job: job.id, id, worker, now: host.now() })
			at('finished', message.subject)
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
