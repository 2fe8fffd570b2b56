/** Signatures of requests, against the worked examples of RFC 9421 and RFC 9530; and what is refused. */
import { createHmac } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import { readSignatureInputs, sayParameters, signatureBase } from '$lib/core/signing/signature-base.ts'
import { contentDigest, signRequest, verifyRequest } from '$lib/server/outside/sign.ts'

/** RFC 9421, appendix B.2: the request that its examples sign. */
const EXAMPLE = {
	method: 'POST',
	url: 'http://example.com/foo?param=Value&Pet=dog',
	headers: {
		host: 'example.com',
		date: 'Tue, 20 Apr 2021 02:07:55 GMT',
		'content-type': 'application/json',
		'content-digest':
			'sha-512=:WZDPaVn/7XgHaAy8pmojAkGWoRx2UFChF41A2svX+TaPm+AbwAgBWnrIiYllu7BNNyealdVLvRwEmTHWXvJwew==:',
		'content-length': '18'
	}
}
/** Appendix B.1.5. */
const SHARED = 'uzvJfB4u3N0Jy4T7NZ75MDVcr8zSTInedJtkgcu46YW4XByzNJjxBdtjUkdJPBtbmHhIDi6pcl8jsasjlTMtDQ=='

describe('RFC 9421', () => {
	test('B.2.5: the signature with a shared secret', () => {
		const components = ['date', '@authority', 'content-type']
		const parameters = sayParameters(components, { created: 1618884473, keyId: 'test-shared-secret' })
		expect(parameters).toBe('("date" "@authority" "content-type");created=1618884473;keyid="test-shared-secret"')
		const base = signatureBase(EXAMPLE, { components, parameters }) ?? ''
		expect(base.split('\n')).toEqual([
			'"date": Tue, 20 Apr 2021 02:07:55 GMT',
			'"@authority": example.com',
			'"content-type": application/json',
			`"@signature-params": ${parameters}`
		])
		const mac = createHmac('sha256', Buffer.from(SHARED, 'base64')).update(base).digest('base64')
		expect(mac).toBe('pxcQw6G3AjtMBQjwo8XzkZf/bws5LelbaMk5rGIGtE8=')
	})

	test.each([
		['@method', 'POST'],
		['@target-uri', 'https://www.example.com/path?param=value'],
		['@authority', 'www.example.com'],
		['@scheme', 'https'],
		['@request-target', '/path?param=value'],
		['@path', '/path'],
		['@query', '?param=value']
	])('2.2: %s of a request', (name, value) => {
		const request = { method: 'post', url: 'https://www.example.com/path?param=value', headers: {} }
		expect(signatureBase(request, { components: [name], parameters: '()' })).toBe(`"${name}": ${value}\n"@signature-params": ()`) // prettier-ignore
	})

	test.each([
		['2.2.3: a standard port is left out', 'https://www.example.com:443/', '@authority', 'www.example.com'],
		['2.2.3: names of hosts in lower case', 'https://WWW.Example.com:8443/', '@authority', 'www.example.com:8443'],
		['2.2.7: no query at all', 'https://www.example.com/path', '@query', '?']
	])('%s', (_what, url, name, value) => {
		const base = signatureBase({ method: 'GET', url, headers: {} }, { components: [name], parameters: '()' })
		expect(base).toBe(`"${name}": ${value}\n"@signature-params": ()`)
	})

	test('4.1: parameters are read as they stand', () => {
		const header = 'sig1=("@method" "@authority" "content-digest");created=1618884473;expires=1618884773;keyid="k";alg="hmac-sha256"' // prettier-ignore
		expect(readSignatureInputs(header)).toEqual([
			{
				...{ label: 'sig1', components: ['@method', '@authority', 'content-digest'], created: 1618884473 },
				...{ expires: 1618884773, keyId: 'k', alg: 'hmac-sha256', parameters: header.slice('sig1='.length) }
			}
		])
	})

	test.each([
		['a component twice', ['@method', '@method']],
		['a field that is not there', ['x-away']],
		['a derived one that nobody knows', ['@mood']]
	])('2.5: %s is no base to sign', (_what, components) => {
		expect(signatureBase(EXAMPLE, { components, parameters: '()' })).toBeUndefined()
	})
})

test('RFC 9530, appendix B.1: the digest of a body', () => {
	expect(contentDigest(Buffer.from('{"hello": "world"}\n'))).toBe(
		'sha-256=:RK/0qy18MlBSVnWgjwz6lZEWjP/lF5HF9bvEF8FabDg=:'
	)
})

const NOW = Date.parse('2026-11-29T12:00:00Z')
const KEY = { id: 'chandlery', secret: SHARED }
const request = {
	method: 'POST',
	url: 'https://trust.varrow.example/request/3/r1',
	headers: { 'content-type': 'application/json', 'idempotency-key': 'k1' },
	body: '{"code":"SH-12"}'
}
const find = (id: string) => (id === KEY.id ? KEY : undefined)

function verified(
	change: { body?: string; url?: string; method?: string; headers?: Record<string, string>; now?: number } = {}
) {
	const signed = { ...request.headers, ...signRequest(request, KEY, NOW) }
	const { body = request.body, now = NOW, headers = {}, ...rest } = change
	return verifyRequest({ ...request, ...rest, headers: { ...signed, ...headers }, body: Buffer.from(body) }, find, now)
}

test('what one program signs the other knows', () => {
	expect(verified()).toEqual({ by: KEY })
	expect(verified({ now: NOW + 299_000 })).toEqual({ by: KEY })
})

test.each([
	['another body', { body: '{"code":"SH-13"}' }, 'Content-Digest'],
	['another method', { method: 'PUT' }, 'not one that this workspace knows'],
	['another path', { url: 'https://trust.varrow.example/request/3/r2' }, 'not one that this workspace knows'],
	['another host', { url: 'https://other.varrow.example/request/3/r1' }, 'not one that this workspace knows'],
	['a query put to it', { url: `${request.url}?x=1` }, 'not one that this workspace knows'],
	['another key for the same work', { headers: { 'idempotency-key': 'k2' } }, 'not one that this workspace knows'],
	['another type', { headers: { 'content-type': 'text/plain' } }, 'not one that this workspace knows'],
	['no signature', { headers: { 'signature-input': '' } }, 'is not signed'],
	['a damaged signature', { headers: { signature: 'tin-shed=:AAAA:' } }, 'not one that this workspace knows'],
	['what cannot be read', { headers: { 'signature-input': 'tin-shed=((' } }, 'cannot be read'],
	['an old one', { now: NOW + 301_000 }, 'more than five minutes ago'],
	['one from a clock that runs ahead', { now: NOW - 301_000 }, 'clocks of the two programs']
] as const)('%s is refused', (_what, change, says) => {
	expect(verified(change)).toEqual({ why: expect.stringContaining(says) })
})

test('a key that nobody has reads as a wrong signature', () => {
	const signed = signRequest(request, { ...KEY, id: 'nobody' }, NOW)
	const got = verifyRequest({ ...request, headers: { ...request.headers, ...signed }, body: Buffer.from(request.body) }, find, NOW) // prettier-ignore
	expect(got).toEqual(verified({ headers: { signature: 'tin-shed=:AAAA:' } }))
})

test('what is not covered could be exchanged, so it is asked for', () => {
	const bare = 'tin-shed=("@method" "@authority");created=1796000000;keyid="chandlery"'
	expect(verified({ headers: { 'signature-input': bare } })).toEqual({
		why: 'The signature must cover "@path", "@query", "content-type", "content-digest", "idempotency-key" too.'
	})
})
