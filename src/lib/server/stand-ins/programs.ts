/** The stand-in for other programs, where nothing is called in earnest: takes every call at once and shows it in the Post tray. */
import type { Outside } from '../outside/outside.ts'
import type { TakenMessage } from './mail.ts'

/** Names of hosts that are nobody's (RFC 6761). */
const NOBODYS = /(^|\.)example$/

/** Calls of hosts under `.example` stay here; all others leave by `outside`. */
export function openStandInPrograms(outside: Outside, onTaken: (message: TakenMessage) => Promise<void>): Outside {
	return {
		async post(call) {
			const { hostname, host } = new URL(call.url)
			if (!NOBODYS.test(hostname)) return outside.post(call)
			const fields = ['idempotency-key', 'content-digest', 'signature-input', 'signature']
			const said = fields.map((name) => `${name}: ${call.headers[name] ?? ''}`).join('\n')
			// What is sealed for a browser nobody else reads.
			const text = typeof call.body === 'string' ? JSON.stringify(JSON.parse(call.body), undefined, 2) : `${call.body.length} bytes, sealed` // prettier-ignore
			await onTaken({
				...{ messageId: call.headers['idempotency-key'] ?? '', sender: 'tin-shed', recipient: host },
				...{ subject: `POST ${call.url}`, body: `${text}\n\n${said}`, html: '', file: null }
			})
			return { status: 202 }
		}
	}
}
