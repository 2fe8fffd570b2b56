/** Asks the server for something and says what came of it. A refusal comes back as a value, so that nothing typed is lost. */
import type { AnswerTo, AskedOf } from '$lib/core/requests/pair.ts'
import type { Answers, Requests } from '$lib/core/requests/requests.ts'
import { isSignalCut } from './signal.ts'
import { SIGNED_OUT } from './session/signed-out.ts'

export interface Refusal {
	readonly code: string
	readonly message: string
	readonly details: Readonly<Record<string, unknown>>
}

export type Sent<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusal: Refusal }

/** Sends what an address takes. */
export function send<
	M extends keyof Requests,
	P extends keyof Requests[M] & string,
	const A extends AskedOf<Requests[M][P]>
>(method: M, address: P, asked: A): Promise<Sent<AnswerTo<Requests[M][P], A>>> {
	return fetchJson(address, {
		method,
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify(asked)
	})
}

/** Reads from an address, or gives it bytes. */
export function ask<P extends keyof Answers>(address: P, init?: RequestInit): Promise<Sent<Answers[P]>> {
	return fetchJson(address, init)
}

async function fetchJson<T>(address: string, init?: RequestInit): Promise<Sent<T>> {
	try {
		if (isSignalCut()) throw new Error('No signal is played here')
		const response = await fetch(address, { ...init, headers: { accept: 'application/json', ...init?.headers } })
		if (response.status === 401) window.dispatchEvent(new Event(SIGNED_OUT))
		// Its schema looks at it below.
		const value = (await response.json().catch(() => ({}))) as unknown
		// Both ends infer what an address answers from the same type.
		if (response.ok) return { ok: true, value: value as T }
		const said = value as Partial<Refusal>
		return {
			ok: false,
			refusal: {
				code: said.code ?? 'failed',
				message: said.message ?? 'That did not work. Try again.',
				details: said.details ?? {}
			}
		}
	} catch {
		return {
			ok: false,
			refusal: {
				code: 'no signal',
				message: 'No signal. What you typed is kept here; send it again when there is one.',
				details: {}
			}
		}
	}
}
