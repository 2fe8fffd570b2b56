/**
 * Coming to the door of an app, as far as it is about who stands there: guesses are slowed, codes and phrases compared, a
 * session begun. Whom the door lets in is for `joining/door.ts` to say, in the transaction that does it.
 */
import { AppError } from '$lib/core/app-error.ts'
import { openThrottle } from '../base/throttle.ts'
import type { Vouched } from '../joining/providers.ts'
import type { Site } from '../threads/threads.ts'
import { isRight } from './passwords.ts'
import { beginSession } from './sign-in.ts'

/** Signed in already, vouched for by a provider, or known by what they wrote. */
export type Comer =
	| { readonly person: number }
	| { readonly vouched: Vouched & { readonly email: string } }
	| { readonly name: string; readonly email: string }

export interface ComingToDoor {
	readonly app: number
	readonly comer: Comer
	/** What they know: a code or the app's pass phrase; empty where they know none. */
	readonly code: string
	/** What they answer to what the doorstep asks. */
	readonly answer: string
	/** The network address that asks. */
	readonly from: string
	readonly agent: string
}

/** In (with the token of a session, where one began), or how it goes on. */
export type CameToDoor =
	| { readonly is: 'in'; readonly token?: string }
	| { readonly is: 'waiting' }
	| { readonly is: 'sent'; readonly to: string }

/** Who guesses codes waits; and no network has us write to any number of addresses. */
const guesses = openThrottle(12)
const sent = openThrottle(60)
const TOO_MANY = 'Too many tries. Wait a quarter of an hour, then try again.'

/** Refuses (`AppError`) in the door's words, or because this network tried too often. */
export async function comeToDoor(host: Site, coming: ComingToDoor): Promise<CameToDoor> {
	const { app, code, from } = coming
	const now = host.now()
	const key = `door ${from}`
	if (sent.isSlowed(key, now) || !guesses.take(key, now)) throw new AppError('busy', TOO_MANY)
	const phrase = code === '' ? null : await host.read('phrase', { app })
	const came = await passDoor(host, coming, phrase !== null && (await isRight(code, phrase)))
	guesses.giveBack(key)
	return came
}

async function passDoor(host: Site, coming: ComingToDoor, phraseIsRight: boolean): Promise<CameToDoor> {
	const { app, comer, code, answer, from, agent } = coming
	const now = host.now()
	const what = { app, code, answer, phraseIsRight, now }
	if ('person' in comer) {
		const { state } = await host.write('comeIn', { ...what, person: comer.person })
		return { is: state === 'waiting' ? 'waiting' : 'in' }
	}
	if ('vouched' in comer) {
		const person = await host.write('arriveVouched', { ...what, vouched: comer.vouched })
		return { is: 'in', token: await beginSession(host, { person, through: 'door', agent }) }
	}
	// Before it is written, so that asking at once writes no more letters; it counts whatever comes of it.
	if (!sent.take(`door ${from}`, now)) throw new AppError('busy', TOO_MANY)
	await host.write('arrive', { ...what, name: comer.name, email: comer.email.toLowerCase() })
	return { is: 'sent', to: comer.email }
}

/** A visitor's session, for who looks in without signing in: each is a session and an entry in the Logbook. */
export async function beginVisit(
	host: Site,
	{ app, from, agent }: { app: number; from: string; agent: string }
): Promise<string> {
	const person = await host.read('visitorOf', { app })
	if (person === null) throw new AppError('forbidden', 'This app is not open to visitors any more.')
	if (!sent.take(`visit ${from}`, host.now()))
		throw new AppError('busy', 'Too many visits from here. Wait a quarter of an hour, then try again.')
	return beginSession(host, { person, through: 'visit', agent })
}
