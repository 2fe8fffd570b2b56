/** Tells browsers that are closed: one message after the other, sealed for the browser (RFC 8291) and signed by us (RFC 8292). */
import webPush from 'web-push'
import type { PushWords } from '$lib/core/requests/notices.ts'
import { seal, unseal } from '../base/seal.ts'
import type { DuePush } from '../jobs/run-jobs.ts'
import type { Outside, OutsideAnswer } from '../outside/outside.ts'
import type { Threads } from '../threads/threads.ts'

export interface PushKeys {
	readonly publicKey: string
	readonly privateKey: string
}

export interface PushSender {
	readonly host: Pick<Threads, 'read' | 'write' | 'now'>
	readonly outside: Outside
	readonly pushKeys: PushKeys
	readonly origin: string
	/** A name for this run of the program. */
	readonly worker: string
}

/** How long a push service keeps what a browser is not there for. */
const KEPT_S = 86_400

/** The workspace's own, made at its first start. */
export async function openPushKeys(host: Pick<Threads, 'read' | 'write'>, key: string): Promise<PushKeys> {
	const known = await host.read('pushKeys', undefined)
	const sealed = known ?? (await host.write('keepPushKeys', { sealed: seal(key, 'push', JSON.stringify(webPush.generateVAPIDKeys())) })) // prettier-ignore
	// As it was sealed above.
	return JSON.parse(unseal(key, 'push', sealed)) as PushKeys
}

/** False where none is due. */
export async function sendPush(sender: PushSender): Promise<boolean> {
	const { host, worker } = sender
	const due = await host.write('claimPush', { worker, now: host.now() })
	if (!due) return false
	const answer = await send(sender, due)
	await host.write('finishPush', { job: due.job, device: due.device.id, outcome: outcomeOf(answer), worker, now: host.now() }) // prettier-ignore
	return true
}

async function send(
	{ host, outside, pushKeys, origin }: PushSender,
	{ device, notice }: DuePush
): Promise<OutsideAnswer> {
	const { name } = await host.read('workspace', undefined)
	const words: PushWords = { from: name, subject: notice.subject, open: `/notices#${notice.id}` }
	// Push services want to know whom to write to; an address of the web serves as well as one of mail.
	const subject = origin.startsWith('https:') ? origin : 'mailto:tin-shed@varrow.example'
	const keys = { p256dh: device.p256dh, auth: device.auth }
	try {
		const { endpoint, headers, body } = webPush.generateRequestDetails({ endpoint: device.endpoint, keys }, JSON.stringify(words), { vapidDetails: { subject, ...pushKeys }, TTL: KEPT_S, contentEncoding: 'aes128gcm', urgency: 'normal' }) // prettier-ignore
		return await outside.post({ url: endpoint, headers: asText(headers), body })
	} catch (thrown) {
		// Keys that are none: it was never a device.
		return { why: String(thrown), isForGood: true }
	}
}

function asText(headers: Readonly<Record<string, string | number>>): Record<string, string> {
	return Object.fromEntries(Object.entries(headers).map(([name, value]) => [name.toLowerCase(), String(value)]))
}

/** `gone`: the browser is told no more. */
export type PushOutcome = 'sent' | 'gone' | 'away'

function outcomeOf(answer: OutsideAnswer): PushOutcome {
	if ('why' in answer) return answer.isForGood ? 'gone' : 'away'
	const { status } = answer
	if (status >= 200 && status < 300) return 'sent'
	// RFC 8030, section 7.3: a subscription that has ended.
	return status === 429 || status >= 500 ? 'away' : 'gone'
}
