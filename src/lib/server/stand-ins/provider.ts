/**
 * The stand-in for a provider of sign-in: a small OpenID provider on loopback, for the demo and the tests. It asks for no
 * password: whoever stands before it says which of the demo's people they are.
 *
 * What it does of the standard: discovery, the code flow with PKCE (S256), signed ID tokens with the nonce, its keys.
 */
import { createHash, randomBytes } from 'node:crypto'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { StandInPerson } from '../people/stand-in-people.ts'
import { exportJWK, generateKeyPair, SignJWT, type CryptoKey, type JWK } from 'jose'

export interface StandIn {
	readonly issuer: string
	readonly clientId: string
	readonly secret: string
	close(): Promise<void>
}

interface Grant {
	readonly person: StandInPerson
	readonly redirect: string
	readonly nonce: string
	readonly challenge: string
}

/** What stands behind the addresses: who can be chosen, where they are sent back to, and the codes that were given out. */
interface Provider {
	/** Known once it listens. */
	issuer: string
	readonly secret: string
	readonly key: CryptoKey
	readonly jwk: JWK
	readonly people: () => Promise<readonly StandInPerson[]>
	readonly returns: string
	readonly grants: Map<string, Grant>
}

type Handler = (provider: Provider, request: IncomingMessage, response: ServerResponse) => void | Promise<void>

const CLIENT = 'tin-shed'
const ALGORITHM = 'ES256'
const MOST_BODY = 20_000
const PAGE_STYLE =
	'body{font:17px/1.6 sans-serif;max-width:34rem;margin:3rem auto;padding:0 1rem;color:#16201b}li{padding:.2rem 0}a{color:#24567f}'
const PAGE_POLICY = `default-src 'none'; style-src 'sha256-${createHash('sha256').update(PAGE_STYLE).digest('base64')}'`

/** `people`: who can be chosen; `returns`: the one address that it sends people back to. */
export async function openStandIn(people: Provider['people'], returns: string): Promise<StandIn> {
	const { privateKey: key, publicKey } = await generateKeyPair(ALGORITHM)
	const jwk = { ...(await exportJWK(publicKey)), kid: 'stand-in', alg: ALGORITHM, use: 'sig' }
	const secret = randomBytes(24).toString('base64url')
	const provider: Provider = { issuer: '', secret, key, jwk, people, returns, grants: new Map() }
	const server = createServer((request, response) => {
		answer(provider, request, response).catch(() => response.writeHead(500).end())
	})
	await new Promise<void>((resolve, reject) => {
		server.once('error', reject)
		server.listen(0, '127.0.0.1', resolve)
	})
	provider.issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
	return {
		issuer: provider.issuer,
		clientId: CLIENT,
		secret,
		close: () =>
			new Promise((resolve) => {
				server.close(() => resolve())
				server.closeAllConnections()
			})
	}
}

const HANDLERS: Readonly<Record<string, Handler>> = {
	'GET /.well-known/openid-configuration': ({ issuer }, _request, response) =>
		sendJson(response, 200, describe(issuer)),
	'GET /keys': ({ jwk }, _request, response) => sendJson(response, 200, { keys: [jwk] }),
	'GET /choose': showPeople,
	'GET /chosen': sendBack,
	'POST /token': sendToken
}

async function answer(provider: Provider, request: IncomingMessage, response: ServerResponse): Promise<void> {
	const handle = HANDLERS[`${request.method} ${addressOf(provider, request).pathname}`]
	if (!handle) return void response.writeHead(404).end()
	await handle(provider, request, response)
}

function addressOf({ issuer }: Provider, request: IncomingMessage): URL {
	return new URL(request.url ?? '/', issuer)
}

async function showPeople(provider: Provider, request: IncomingMessage, response: ServerResponse): Promise<void> {
	const { searchParams: asked } = addressOf(provider, request)
	if (!isSound(provider, asked)) return void response.writeHead(400).end('This request is not complete.')
	const list = (await provider.people()).map((person) => {
		const chosen = new URLSearchParams([...asked, ['person', person.subject]])
		return `<li><a href="/chosen?${escape(chosen.toString())}">${escape(person.name)}</a> ${escape(person.email)}${person.vouched ? '' : ' (address not vouched for)'}</li>`
	})
	response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'content-security-policy': PAGE_POLICY })
	response.end(page(list.join('')))
}

async function sendBack(provider: Provider, request: IncomingMessage, response: ServerResponse): Promise<void> {
	const { searchParams: asked } = addressOf(provider, request)
	const person = (await provider.people()).find((each) => each.subject === asked.get('person'))
	if (!isSound(provider, asked) || !person) return void response.writeHead(400).end('This request is not complete.')
	const code = randomBytes(24).toString('base64url')
	provider.grants.set(code, {
		person,
		redirect: provider.returns,
		nonce: asked.get('nonce') ?? '',
		challenge: asked.get('code_challenge') ?? ''
	})
	const back = new URLSearchParams({ code, state: asked.get('state') ?? '', iss: provider.issuer })
	response.writeHead(303, { location: `${provider.returns}?${back.toString()}` }).end()
}

function isSound({ returns }: Provider, asked: URLSearchParams): boolean {
	return (
		asked.get('client_id') === CLIENT &&
		asked.get('redirect_uri') === returns &&
		asked.get('response_type') === 'code' &&
		asked.get('code_challenge_method') === 'S256'
	)
}

async function sendToken(provider: Provider, request: IncomingMessage, response: ServerResponse): Promise<void> {
	const form = new URLSearchParams(await readBody(request))
	const code = form.get('code') ?? ''
	const grant = provider.grants.get(code)
	provider.grants.delete(code)
	if (!isClient(provider, request, form)) return sendJson(response, 401, { error: 'invalid_client' })
	if (!grant || grant.redirect !== form.get('redirect_uri') || grant.challenge !== challengeOf(form))
		return sendJson(response, 400, { error: 'invalid_grant' })
	sendJson(response, 200, {
		access_token: randomBytes(24).toString('base64url'),
		token_type: 'Bearer',
		expires_in: 300,
		id_token: await signIdToken(provider, grant)
	})
}

/** By header or in the form, as RFC 6749 2.3.1 lets a client. */
function isClient({ secret }: Provider, request: IncomingMessage, form: URLSearchParams): boolean {
	const [kind, code] = (request.headers.authorization ?? '').split(' ')
	if (kind === 'Basic') return Buffer.from(code ?? '', 'base64').toString() === `${CLIENT}:${secret}`
	return form.get('client_id') === CLIENT && form.get('client_secret') === secret
}

/** What the verifier in a form comes to, as RFC 7636 4.6 has it for S256. */
function challengeOf(form: URLSearchParams): string {
	return createHash('sha256')
		.update(form.get('code_verifier') ?? '')
		.digest('base64url')
}

function signIdToken({ issuer, key, jwk }: Provider, { person, nonce }: Grant): Promise<string> {
	return new SignJWT({ nonce, name: person.name, email: person.email, email_verified: person.vouched })
		.setProtectedHeader({ alg: ALGORITHM, kid: jwk.kid ?? '' })
		.setIssuer(issuer)
		.setAudience(CLIENT)
		.setSubject(person.subject)
		.setIssuedAt()
		.setExpirationTime('5m')
		.sign(key)
}

function describe(issuer: string) {
	return {
		issuer,
		authorization_endpoint: `${issuer}/choose`,
		token_endpoint: `${issuer}/token`,
		jwks_uri: `${issuer}/keys`,
		response_types_supported: ['code'],
		subject_types_supported: ['public'],
		id_token_signing_alg_values_supported: [ALGORITHM],
		code_challenge_methods_supported: ['S256'],
		authorization_response_iss_parameter_supported: true,
		scopes_supported: ['openid', 'email', 'profile']
	}
}

function page(list: string): string {
	return `<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>Quay Pass (stand-in)</title><style>${PAGE_STYLE}</style><h1>Quay Pass</h1><p>A stand-in for a provider of sign-in. It ships with the demo and asks for no password: choose who you are.</p><ul>${list}</ul></html>`
}

function escape(text: string): string {
	return text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`)
}

function sendJson(response: ServerResponse, status: number, body: unknown): void {
	response.writeHead(status, { 'content-type': 'application/json', 'cache-control': 'no-store' })
	response.end(JSON.stringify(body))
}

async function readBody(request: IncomingMessage): Promise<string> {
	let body = ''
	for await (const piece of request) {
		body += String(piece)
		if (body.length > MOST_BODY) throw new Error('Expected a short form')
	}
	return body
}
