/** Asks the server for something and says what came of it. A refusal comes back as a value, so that nothing typed is lost. */
export interface Refusal {
	readonly code: string
	readonly message: string
	readonly details: Readonly<Record<string, unknown>>
}

export type Sent<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusal: Refusal }

export async function send<T>(path: string, body: unknown, method = 'POST'): Promise<Sent<T>> {
	return ask<T>(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
}

export async function ask<T>(path: string, init?: RequestInit): Promise<Sent<T>> {
	try {
		const response = await fetch(path, { ...init, headers: { accept: 'application/json', ...init?.headers } })
		const value = (await response.json().catch(() => ({}))) as unknown
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
