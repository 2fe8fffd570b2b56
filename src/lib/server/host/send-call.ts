/** Sends the calls of routines to other programs, one after the other. */
import type { CallOutcome, DueCall } from '../routines/call-program.ts'
import { unseal } from '../base/seal.ts'
import type { Threads } from '../threads/threads.ts'
import type { Outside, OutsideAnswer } from '../outside/outside.ts'
import { signRequest } from '../outside/sign.ts'

export interface CallSender {
	readonly host: Pick<Threads, 'write' | 'now'>
	readonly outside: Outside
	/** The workspace's key, by which secrets are sealed. */
	readonly key: string
}

/** False where none is due. */
export async function sendCall({ host, outside, key }: CallSender): Promise<boolean> {
	const call = await host.write('claimCall', { now: host.now() })
	if (!call) return false
	const outcome = await sendOne(call, { outside, key, now: host.now() })
	await host.write('finishCall', { id: call.id, outcome, now: host.now() })
	return true
}

async function sendOne(
	{ program, address, body, idempotencyKey }: DueCall,
	{ outside, key, now }: Pick<CallSender, 'outside' | 'key'> & { now: number }
): Promise<CallOutcome> {
	const headers = { 'content-type': 'application/json', 'idempotency-key': idempotencyKey }
	const secret = unseal(key, 'program', program.sealedSecret)
	const signed = signRequest({ method: 'POST', url: address, headers, body }, { id: program.keyId, secret }, now)
	return outcomeOf(program.name, await outside.post({ url: address, headers: { ...headers, ...signed }, body }))
}

/** What may be otherwise in a while: too early, too much, or its own fault. */
const LATER = new Set([408, 425, 429])

function outcomeOf(name: string, answer: OutsideAnswer): CallOutcome {
	if ('why' in answer) return { is: answer.isForGood ? 'refused' : 'away', why: answer.why }
	const { status } = answer
	if (status >= 200 && status < 300) return { is: 'taken' }
	if (status >= 300 && status < 400)
		return {
			is: 'refused',
			why: `${name} answered with another address (${status}), which is not followed. Write that one.`
		}
	const why = `${name} answered with ${status}${status >= 500 ? ', which is a fault of its own' : ''}.`
	return { is: status >= 500 || LATER.has(status) ? 'away' : 'refused', why }
}
