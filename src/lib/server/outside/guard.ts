/**
 * Which addresses this program may call: none of this machine, and none of a private network, unless the operator opens it. The
 * name of a host is resolved first, and the connection goes to the address that was judged.
 */
import { lookup } from 'node:dns/promises'
import { BlockList, isIP } from 'node:net'
import { OperatorError } from '../base/for-operator.ts'

/** The registries of special addresses (RFC 6890 and its updates), and ways of writing IPv4 in IPv6. */
const SHUT: readonly (readonly [string, number])[] = [
	['0.0.0.0', 8],
	['10.0.0.0', 8],
	['100.64.0.0', 10],
	['127.0.0.0', 8],
	['169.254.0.0', 16],
	['172.16.0.0', 12],
	['192.0.0.0', 24],
	['192.0.2.0', 24],
	['192.88.99.0', 24],
	['192.168.0.0', 16],
	['198.18.0.0', 15],
	['198.51.100.0', 24],
	['203.0.113.0', 24],
	['224.0.0.0', 4],
	['240.0.0.0', 4],
	['::', 96],
	['::ffff:0:0', 96],
	['64:ff9b::', 96],
	['64:ff9b:1::', 48],
	['100::', 64],
	['2001::', 23],
	['2001:db8::', 32],
	['2002::', 16],
	['fc00::', 7],
	['fe80::', 10],
	['ff00::', 8]
]

export interface Guard {
	/** The address to connect to; or why there is none. */
	resolve(
		hostname: string
	): Promise<{ readonly address: string; readonly isOpened: boolean } | { readonly why: string }>
}

/** `opened`: networks that the operator lets be called, like `10.20.0.0/16, fd12::/48`. Throws what cannot be read. */
export function openGuard(opened = ''): Guard {
	const shut = listOf(SHUT)
	const open = listOf(opened.split(',').map((text) => text.trim()).filter((text) => text !== '').map(readNetwork)) // prettier-ignore
	return {
		async resolve(hostname) {
			const host = hostname.replace(/^\[(.*)\]$/, '$1')
			const addresses = isIP(host) ? [host] : await addressesOf(host)
			if (addresses.length === 0) return { why: `${host} is not found.` }
			const judged = addresses.map((address) => ({
				address,
				isOpened: has(open, address),
				isShut: has(shut, address)
			}))
			// One address that is shut shuts the name: which of them answers is the other's choice.
			if (judged.some(({ isShut, isOpened }) => isShut && !isOpened))
				return { why: `${host} leads to this machine or into a private network, where nothing is called.` }
			const [first] = judged
			return first ? { address: first.address, isOpened: first.isOpened } : { why: `${host} is not found.` }
		}
	}
}

async function addressesOf(host: string): Promise<string[]> {
	try {
		return (await lookup(host, { all: true, verbatim: true })).map(({ address }) => address)
	} catch {
		return []
	}
}

/** One list for each family: an IPv4 address would fit networks of those that are written in IPv6. */
type Networks = Readonly<Record<'ipv4' | 'ipv6', BlockList>>

function listOf(networks: readonly (readonly [string, number])[]): Networks {
	const lists = { ipv4: new BlockList(), ipv6: new BlockList() }
	for (const [network, bits] of networks) {
		const family = familyOf(network)
		lists[family].addSubnet(network, bits, family)
	}
	return lists
}

function has(networks: Networks, address: string): boolean {
	const family = familyOf(address)
	return networks[family].check(address, family)
}

function familyOf(address: string): 'ipv4' | 'ipv6' {
	return isIP(address) === 6 ? 'ipv6' : 'ipv4'
}

function readNetwork(text: string): [string, number] {
	const [network = '', bits = ''] = text.split('/')
	const most = isIP(network) === 6 ? 128 : 32
	if (isIP(network) === 0 || !/^\d{1,3}$/.test(bits) || Number(bits) > most)
		throw new OperatorError(`TIN_SHED_CALLS names networks that may be called, like 10.20.0.0/16: "${text}" is none.`)
	return [network, Number(bits)]
}
