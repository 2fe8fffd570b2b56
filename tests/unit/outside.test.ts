/** Which addresses are called, and what comes of an answer. */
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { openGuard } from '$lib/server/outside/guard.ts'
import { openOutside } from '$lib/server/outside/outside.ts'

const SHUT = expect.stringContaining('this machine or into a private network')

describe('an address', () => {
	test.each([
		// Ways of writing this machine, and networks that are nobody else's (RFC 6890).
		...['http://127.0.0.1/', 'http://2130706433/', 'http://0x7f.1/', 'http://[::1]/', 'http://[::ffff:127.0.0.1]/'],
		...['http://localhost/', 'http://[::ffff:7f00:1]/', 'http://0.0.0.0/', 'http://[::]/', 'http://017700000001/'],
		...['http://10.1.2.3/', 'http://172.31.255.255/', 'http://192.168.0.1/', 'http://100.64.0.1/'],
		...['http://169.254.169.254/', 'http://[fe80::1]/', 'http://[fd00::1]/', 'http://[64:ff9b::7f00:1]/'],
		...['http://[2002:7f00:1::]/', 'http://[::127.0.0.1]/', 'http://224.0.0.1/', 'http://255.255.255.255/']
	])('%s is not called', async (url) => {
		expect(await openGuard().resolve(new URL(url).hostname)).toEqual({ why: SHUT })
	})

	test('of the world outside is called as it is', async () => {
		expect(await openGuard().resolve('8.8.4.4')).toEqual({ address: '8.8.4.4', isOpened: false })
		expect(await openGuard().resolve('[2001:4860:4860::8844]')).toEqual({ address: '2001:4860:4860::8844', isOpened: false }) // prettier-ignore
	})

	test('that nobody has is not found', async () => {
		expect(await openGuard().resolve('nowhere.invalid')).toEqual({ why: 'nowhere.invalid is not found.' })
	})

	test('of a network that the operator opens is called', async () => {
		const guard = openGuard('127.0.0.0/8, fd12::/48')
		expect(await guard.resolve('127.0.0.1')).toEqual({ address: '127.0.0.1', isOpened: true })
		expect(await guard.resolve('[fd12::1]')).toEqual({ address: 'fd12::1', isOpened: true })
		expect(await guard.resolve('10.0.0.1')).toEqual({ why: SHUT })
	})

	test.each(['10.0.0.1', '10.0.0.0/33', 'here/8', '::1/129'])('%s opens nothing, which is said', (text) => {
		expect(() => openGuard(text)).toThrow('TIN_SHED_CALLS')
	})
})

describe('a call', () => {
	let server: Server
	let at = ''
	const seen: { url: string; host: string; body: string }[] = []
	beforeAll(async () => {
		server = createServer((request, response) => {
			let body = ''
			request.on('data', (chunk: Buffer) => (body += chunk.toString()))
			request.on('end', () => {
				seen.push({ url: request.url ?? '', host: request.headers.host ?? '', body })
				if (request.url === '/moved') response.writeHead(302, { location: `${at}/elsewhere` }).end()
				else if (request.url === '/shut') response.destroy()
				else response.writeHead(201).end('taken')
			})
		})
		await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
		at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
	})
	afterAll(() => void server.close())
	const outside = openOutside(openGuard('127.0.0.1/32'))
	const post = (path: string) => outside.post({ url: at + path, headers: {}, body: '{"é":1}' })

	test('brings the body and the name of the host, and gives the status', async () => {
		expect(await post('/in?a=1')).toEqual({ status: 201 })
		expect(seen.at(-1)).toEqual({ url: '/in?a=1', host: new URL(at).host, body: '{"é":1}' })
	})

	test('follows no redirect', async () => {
		expect(await post('/moved')).toEqual({ status: 302 })
		expect(seen.map(({ url }) => url)).not.toContain('/elsewhere')
	})

	test('that breaks off, or finds nobody, may be tried again', async () => {
		expect(await post('/shut')).toEqual({ why: expect.stringContaining('could not be reached'), isForGood: false })
		const nobody = { url: 'http://127.0.0.1:1/', headers: {}, body: '' }
		expect(await outside.post(nobody)).toMatchObject({ isForGood: false })
		const away = { url: 'https://nowhere.invalid/', headers: {}, body: '' }
		expect(await outside.post(away)).toEqual({ why: 'nowhere.invalid is not found.', isForGood: false })
	})

	test('into a private network, or in the clear, does not leave', async () => {
		const shut = openOutside(openGuard())
		expect(await shut.post({ url: `${at}/in`, headers: {}, body: '' })).toEqual({ why: SHUT, isForGood: true })
		const clear = await shut.post({ url: 'http://8.8.4.4/', headers: {}, body: '' })
		expect(clear).toEqual({ why: '8.8.4.4 is called by https alone.', isForGood: true })
	})
})
