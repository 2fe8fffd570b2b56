/**
 * Signing in through a provider outside, by OpenID Connect Core 1.0: the code flow with PKCE (RFC 7636), a state and a
 * nonce. The library checks what comes back: issuer, audience, signature, time, nonce.
 *
 * A way out is good for ten minutes, once, in the browser that took it: its state stands in a cookie there.
 */
import * as oidc from 'openid-client'
import { AppError } from '$lib/core/app-error.ts'
import { BRIEF_SECONDS } from '../web/brief-cookies.ts'
import type { Site } from '../threads/threads.ts'
import { seal, unseal } from '../base/seal.ts'
import { newToken } from '../base/token.ts'
import type { FirstStep } from '../history/through.ts'
import type { Vouched } from '../joining/providers.ts'
import type { Provider } from '$lib/core/requests/joining.ts'
import type { StandIn } from '../stand-ins/provider.ts'

export type SiteWithStandIn = Site & {
	/** The stand-in for a provider; in a demo only. */
	readonly standIn: StandIn | undefined
}

/** One for all providers: the state says which of them answers. */
export const RETURN_PATH = '/sign-in/back'

interface Leaving {
	readonly provider: number
	readonly verifier: string
	readonly nonce: string
	readonly then: string
	/** The app at whose door somebody stands. */
	readonly door: number | undefined
	readonly until: number
}

const leaving = new Map<string, Leaving>()
/** Somebody new whom a provider vouched for, until they have said at a door what it asks. */
const vouchedFor = new Map<string, { readonly vouched: Vouched & { email: string }; readonly until: number }>()
const MOST_WAITING = 10_000

export interface GoingOut {
	readonly provider: number
	readonly then: string
	readonly door?: number | undefined
}

/** Where the browser is to go, and the state that it must bring back. */
export async function goOut(
	host: SiteWithStandIn,
	{ provider, then, door }: GoingOut
): Promise<{ readonly url: string; readonly state: string }> {
	const config = await configOf(host, provider)
	const [state, nonce, verifier] = [newToken(), newToken(), oidc.randomPKCECodeVerifier()]
	forget(leaving, host.now())
	leaving.set(state, { provider, verifier, nonce, then, door, until: host.now() + BRIEF_SECONDS * 1000 })
	const url = oidc.buildAuthorizationUrl(config, {
		redirect_uri: `${host.origin}${RETURN_PATH}`,
		scope: 'openid email profile',
		state,
		nonce,
		code_challenge: await oidc.calculatePKCECodeChallenge(verifier),
		code_challenge_method: 'S256'
	})
	return { url: url.href, state }
}

export type CameBack =
	| { readonly person: number; readonly through: FirstStep; readonly then: string }
	/** Nobody is known by this address yet, and an app's door is open to them. */
	| { readonly vouched: string; readonly door: number }

/** `url`: what the browser came back with; `state`: what its cookie says. */
export async function comeBack(host: SiteWithStandIn, { url, state }: { url: URL; state: string }): Promise<CameBack> {
	const left = leaving.get(state)
	leaving.delete(state)
	if (!left || left.until <= host.now() || url.searchParams.get('state') !== state)
		throw new AppError('invalid', TOO_LATE)
	try {
		return await letIn(host, left, url)
	} catch (error) {
		// Only of somebody who went out from here, which is slowed: anybody can ask for this page.
		if (error instanceof AppError) await host.write('noteFailedSignIn', { person: undefined, now: host.now() })
		throw error
	}
}

async function letIn(host: SiteWithStandIn, left: Leaving, url: URL): Promise<CameBack> {
	const found = await host.read('provider', { provider: left.provider })
	if (!found) throw new AppError('not_found', GONE)
	const vouched = await vouchedBy(host, left, url)
	const person = await host.write('comeFromProvider', { vouched, now: host.now() })
	if (person !== null) return { person, through: { provider: found.name }, then: left.then }
	if (vouched.email === undefined)
		throw new AppError('invalid', `${found.name} does not vouch for your address, so nobody here is known by it.`)
	if (left.door === undefined)
		throw new AppError(
			'invalid',
			`Nobody here has the address ${vouched.email}. Ask a steward to add it, or come in at the door of an app.`
		)
	forget(vouchedFor, host.now())
	const token = newToken()
	vouchedFor.set(token, {
		vouched: { ...vouched, email: vouched.email },
		until: host.now() + BRIEF_SECONDS * 1000
	})
	return { vouched: token, door: left.door }
}

/** Whom a provider vouched for; undefined once the time is over. */
export function findVouched(host: SiteWithStandIn, token: string): (Vouched & { email: string }) | undefined {
	const found = vouchedFor.get(token)
	return found && found.until > host.now() ? found.vouched : undefined
}

/** What a provider said is used once. */
export function forgetVouched(token: string): void {
	vouchedFor.delete(token)
}

/** Asks an issuer for its own description; throws in words where none answers. `secret` comes back sealed. */
export async function tryProvider(
	host: SiteWithStandIn,
	{ issuer, clientId, secret }: { issuer: string; clientId: string; secret: string }
): Promise<string> {
	if (!/^https:\/\//.test(issuer)) throw new AppError('invalid', 'The address of a provider begins with https://.')
	await discover(issuer, clientId, secret)
	return seal(host.key, 'provider', secret)
}

const TOO_LATE = 'That took too long, or was begun in another window. Sign in once more.'
const GONE = 'This way of signing in is closed. Choose another.'

async function vouchedBy(host: SiteWithStandIn, left: Leaving, url: URL): Promise<Vouched> {
	const here = new URL(host.origin + RETURN_PATH)
	here.search = url.search
	const config = await configOf(host, left.provider)
	try {
		const tokens = await oidc.authorizationCodeGrant(config, here, {
			pkceCodeVerifier: left.verifier,
			expectedState: url.searchParams.get('state') ?? '',
			expectedNonce: left.nonce,
			idTokenExpected: true
		})
		const claims = tokens.claims()
		if (!claims) throw new AppError('invalid', NOT_VOUCHED)
		const { sub, name, email, email_verified: isVerified } = claims
		return {
			provider: left.provider,
			subject: sub,
			name: typeof name === 'string' ? name.slice(0, 120) : '',
			email: isVerified === true && typeof email === 'string' ? email.toLowerCase() : undefined
		}
	} catch (error) {
		if (error instanceof AppError) throw error
		if (error instanceof oidc.AuthorizationResponseError)
			throw new AppError('invalid', 'The provider did not let you in, or you turned back there.')
		// What was wrong with it is for whoever looks after the provider; nothing secret stands in a code.
		console.error(`Cannot sign in through provider "${left.provider}": ${codeOf(error)}`)
		throw new AppError('invalid', NOT_VOUCHED)
	}
}

const NOT_VOUCHED = 'What the provider said could not be checked, so nobody was let in. Sign in once more.'

function codeOf(error: unknown): string {
	return error instanceof Error && 'code' in error ? String(error.code) : 'unknown'
}

async function configOf(host: SiteWithStandIn, provider: number): Promise<oidc.Configuration> {
	const found = await host.read('provider', { provider })
	if (!found) throw new AppError('not_found', GONE)
	if (found.issuer === '') return standInConfig(host)
	return known(found, () => discover(found.issuer, found.clientId, unseal(host.key, 'provider', found.sealedSecret)))
}

/** The stand-in listens on loopback, without TLS; nothing else may. */
async function standInConfig({ standIn }: SiteWithStandIn): Promise<oidc.Configuration> {
	if (!standIn) throw new AppError('not_found', 'The stand-in runs in a demo only.')
	const { issuer, clientId, secret } = standIn
	return oidc.discovery(new URL(issuer), clientId, secret, undefined, { execute: [oidc.allowInsecureRequests] })
}

const configs = new Map<number, { readonly key: string; readonly config: Promise<oidc.Configuration> }>()

/** An issuer's description is asked for once, and again where it did not answer. */
function known(provider: Provider, make: () => Promise<oidc.Configuration>): Promise<oidc.Configuration> {
	const key = `${provider.issuer} ${provider.clientId}`
	const made = configs.get(provider.id)
	if (made?.key === key) return made.config
	const config = make()
	config.catch(() => configs.delete(provider.id))
	configs.set(provider.id, { key, config })
	return config
}

async function discover(issuer: string, clientId: string, secret: string): Promise<oidc.Configuration> {
	try {
		return await oidc.discovery(new URL(issuer), clientId, secret, undefined, { timeout: 10 })
	} catch {
		throw new AppError('invalid', `No provider answers at ${issuer}. Look at the address, and try again.`)
	}
}

function forget(waiting: Map<string, { readonly until: number }>, now: number): void {
	for (const [key, { until }] of waiting) if (until <= now || waiting.size > MOST_WAITING) waiting.delete(key)
}
