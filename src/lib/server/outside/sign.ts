/**
 * Requests between programs, signed by a secret that both hold: HTTP Message Signatures (RFC 9421) with `hmac-sha256`, over a
 * digest of the body (RFC 9530).
 */
import { createHash, createHmac, timingSafeEqual } from 'node:crypto'
import { parseDictionary, serializeDictionary, serializeByteSequence } from 'structured-headers'
import {
	readSignatureInputs,
	sayParameters,
	signatureBase,
	type SignatureInput,
	type SignedRequest
} from '$lib/core/signing/signature-base.ts'

/** What must be covered, so that nothing of a request can be exchanged. */
export const COVERED = [
	'@method',
	'@authority',
	'@path',
	'@query',
	'content-type',
	'content-digest',
	'idempotency-key'
] as const

const LABEL = 'tin-shed'
const ALG = 'hmac-sha256'
/** How far the clocks of two programs may be apart. */
const MOST_APART_S = 300

export interface Key {
	readonly id: string
	/** As base64. */
	readonly secret: string
}

/** The header fields by which a request with a body is signed; `now`: epoch ms. */
export function signRequest(
	{ body, ...request }: SignedRequest & { readonly body: string },
	{ id, secret }: Key,
	now: number
): Readonly<Record<string, string>> {
	const digest = contentDigest(Buffer.from(body))
	const parameters = sayParameters(COVERED, { created: Math.floor(now / 1000), keyId: id, alg: ALG })
	const signed = { ...request, headers: { ...request.headers, 'content-digest': digest } }
	const base = signatureBase(signed, { components: COVERED, parameters })
	if (base === undefined) throw new Error('Expected a request with all that is covered')
	return {
		'content-digest': digest,
		'signature-input': `${LABEL}=${parameters}`,
		signature: `${LABEL}=${serializeByteSequence(new Uint8Array(mac(base, secret)))}`
	}
}

/** `Content-Digest: sha-256=:…:` */
export function contentDigest(body: Uint8Array): string {
	return serializeDictionary({ 'sha-256': createHash('sha256').update(body).digest() })
}

/** What is wrong with a signed request, for whoever wrote the program that sent it; nothing where all is well. */
export type Verified<T extends Key> = { readonly by: T } | { readonly why: string }

const NOT_KNOWN = 'The signature is not one that this workspace knows.'

/**
 * Who signed a request. A wrong signature and a key that nobody has read alike, so that keys cannot be tried.
 * `find`: the key of an id; `now`: epoch ms.
 */
export function verifyRequest<T extends Key>(
	{ body, ...request }: SignedRequest & { readonly body: Uint8Array },
	find: (id: string) => T | undefined,
	now: number
): Verified<T> {
	const { headers } = request
	const inputs = readSignatureInputs(headers['signature-input'] ?? '')
	if (!inputs) return { why: 'Signature-Input cannot be read. It is a dictionary of RFC 9421.' }
	const [input] = inputs
	if (!input) return { why: 'The request is not signed. It needs Signature-Input and Signature, as RFC 9421 has them.' }
	const why = refusalOf(input, now)
	if (why !== undefined) return { why }
	if (!isDigestOf(headers['content-digest'] ?? '', body))
		return { why: 'Content-Digest is not the SHA-256 of the body that came.' }
	const key = find(input.keyId ?? '')
	const base = signatureBase(request, input)
	const signature = readSignature(headers['signature'] ?? '', input.label)
	if (!key || base === undefined || !signature) return { why: NOT_KNOWN }
	const wanted = mac(base, key.secret)
	const isRight = signature.length === wanted.length && timingSafeEqual(signature, wanted)
	return isRight ? { by: key } : { why: NOT_KNOWN }
}

function refusalOf({ components, created, expires, alg }: SignatureInput, now: number): string | undefined {
	const missing = COVERED.filter((name) => !components.includes(name))
	if (missing.length > 0) return `The signature must cover ${missing.map((name) => `"${name}"`).join(', ')} too.`
	if (alg !== undefined && alg !== ALG) return `Sign with ${ALG}.`
	if (created === undefined) return 'The signature must say when it was made: created, in seconds.'
	if (Math.abs(now / 1000 - created) > MOST_APART_S)
		return 'The signature was made more than five minutes ago, or the clocks of the two programs are further apart.'
	if (expires !== undefined && expires < now / 1000) return 'The signature has expired.'
	return undefined
}

function isDigestOf(header: string, body: Uint8Array): boolean {
	try {
		const [digest] = parseDictionary(header).get('sha-256') ?? []
		const wanted = createHash('sha256').update(body).digest()
		return digest instanceof ArrayBuffer && wanted.equals(Buffer.from(digest))
	} catch {
		return false
	}
}

function readSignature(header: string, label: string): Buffer | undefined {
	try {
		const [bytes] = parseDictionary(header).get(label) ?? []
		return bytes instanceof ArrayBuffer ? Buffer.from(bytes) : undefined
	} catch {
		return undefined
	}
}

function mac(base: string, secret: string): Buffer {
	return createHmac('sha256', Buffer.from(secret, 'base64')).update(base).digest()
}
