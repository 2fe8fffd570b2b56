/** Whose address a request comes from: a header that anybody can write is believed from named proxies alone (RFC 7239, 8.1). */
import { expect, test } from 'vitest'
import { addressOf, readProxies } from '$lib/server/base/client-address.ts'

const NONE = readProxies(undefined)
const OURS = readProxies('10.0.0.0/8, 192.0.2.7, 2001:db8::/32')

const cases: [what: string, connected: string, forwarded: string | null, proxies: typeof NONE, want: string][] = [
	['no proxy, no header', '198.51.100.4', null, NONE, '198.51.100.4'],
	['no proxy is named: the header is nobody’s', '198.51.100.4', '203.0.113.9', NONE, '198.51.100.4'],
	['not one of the named', '198.51.100.4', '203.0.113.9', OURS, '198.51.100.4'],
	['a named proxy says whom it serves', '10.1.2.3', '203.0.113.9', OURS, '203.0.113.9'],
	['what the client wrote before it is not believed', '10.1.2.3', '127.0.0.1, 203.0.113.9', OURS, '203.0.113.9'],
	['two named proxies in a row', '10.1.2.3', '203.0.113.9, 192.0.2.7', OURS, '203.0.113.9'],
	['a proxy that says nothing', '10.1.2.3', null, OURS, '10.1.2.3'],
	['a proxy that hands on nonsense', '10.1.2.3', 'unknown', OURS, '10.1.2.3'],
	['an IPv4 address on an IPv6 socket', '::ffff:10.1.2.3', '203.0.113.9', OURS, '203.0.113.9'],
	['with a port', '10.1.2.3', '203.0.113.9:4711', OURS, '203.0.113.9'],
	['IPv6, bracketed with a port', '2001:db8::1', '[2001:470::5]:443', OURS, '2001:470::5']
]
test.each(cases)('%s', (_what, connected, forwarded, proxies, want) => {
	expect(addressOf(connected, forwarded, proxies)).toBe(want)
})

test.each(['everywhere', '10.0.0.0/33', '10.0.0/8', '10.0.0.0/x'])(
	'a setting that cannot be read is named: %s',
	(text) => {
		expect(() => readProxies(text)).toThrow(`"${text}" is neither an address nor a range`)
	}
)
