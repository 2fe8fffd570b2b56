/**
 * Whose network address a request comes from. Behind a proxy every request comes from the proxy, which says in
 * `X-Forwarded-For` from where it had it. Anybody can write that header, so it is believed only from addresses that the
 * operator names in `TIN_SHED_PROXIES`, each an address or a range (`10.0.0.0/8`), with commas between; by default from none.
 */
import { BlockList, isIP } from 'node:net'
import { OperatorError } from './for-operator.ts'

export interface Proxies {
	/** Whether an address is one of theirs. */
	has(address: string): boolean
}

/** Refuses what is neither an address nor a range, naming it. */
export function readProxies(text: string | undefined): Proxies {
	const list = new BlockList()
	for (const each of (text ?? '').split(',').map((part) => part.trim())) {
		if (each === '') continue
		const [address = '', bits] = each.split('/')
		const family = isIP(address) === 6 ? 'ipv6' : 'ipv4'
		const most = family === 'ipv6' ? 128 : 32
		const prefix = bits === undefined ? most : Number(bits)
		if (isIP(address) === 0 || !Number.isInteger(prefix) || prefix < 0 || prefix > most)
			throw new OperatorError(
				`TIN_SHED_PROXIES cannot be read: "${each}" is neither an address nor a range such as 10.0.0.0/8.`
			)
		list.addSubnet(address, prefix, family)
	}
	return { has: (address) => isIP(address) > 0 && list.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4') }
}

/**
 * The address that asks: the connection's own, or, where that is a named proxy's, the last one in the header that is not.
 * What stands before it was written by whoever asks.
 */
export function addressOf(connected: string, forwarded: string | null, proxies: Proxies): string {
	let address = plain(connected)
	const hops = (forwarded ?? '').split(',').map((hop) => plain(hop.trim()))
	while (proxies.has(address)) {
		const next = hops.pop()
		if (next === undefined || isIP(next) === 0) break
		address = next
	}
	return address
}

/** An IPv4 address as IPv6 sockets write it, or with a port, is the same address. */
function plain(address: string): string {
	const mapped = address.replace(/^::ffff:(?=\d+\.)/i, '')
	return mapped.replace(/^(\d+\.\d+\.\d+\.\d+):\d+$/, '$1').replace(/^\[(.*)\](?::\d+)?$/, '$1')
}
