/** How calls leave for other programs: whichever way, each is one request with a body, and answers with a status. */
import { request as plain } from 'node:http'
import { request as secured } from 'node:https'
import type { Guard } from './guard.ts'

export interface OutsideCall {
	readonly url: string
	readonly headers: Readonly<Record<string, string>>
	readonly body: string | Uint8Array
}

export type OutsideAnswer = { readonly status: number } | { readonly why: string; readonly isForGood: boolean }

export interface Outside {
	/** Posts; never throws. No redirect is followed. */
	post(call: OutsideCall): Promise<OutsideAnswer>
}

const TIMEOUT_MS = 20_000

/** Connects to the address that the guard judged, whatever a name resolves to by then. */
export function openOutside(guard: Guard): Outside {
	return {
		async post({ url, headers, body }) {
			const { protocol, hostname, port, pathname, search, host } = new URL(url)
			const found = await guard.resolve(hostname)
			if ('why' in found) return { why: found.why, isForGood: !found.why.endsWith('not found.') }
			if (protocol !== 'https:' && !found.isOpened) return { why: `${host} is called by https alone.`, isForGood: true }
			const send = protocol === 'https:' ? secured : plain
			return new Promise((resolve) => {
				const request = send({
					...{ host: found.address, port: port || undefined, path: pathname + search, method: 'POST' },
					...{ servername: hostname, agent: false, timeout: TIMEOUT_MS },
					headers: { ...headers, host, 'content-length': Buffer.byteLength(body) }
				})
				const failed = (why: string) => resolve({ why, isForGood: false })
				request.on('response', (response) => {
					// What it says besides is not read: the status is the answer.
					response.resume()
					resolve({ status: response.statusCode ?? 0 })
				})
				request.on('timeout', () => request.destroy(new Error('no answer in twenty seconds')))
				request.on('error', (error) => failed(`${host} could not be reached: ${error.message}.`))
				request.end(body)
			})
		}
	}
}
