/**
 * By what a browser is known to have signed somebody in before. It opens nothing: its tries are counted apart, so that whoever
 * guesses at the same account from the same network shuts nobody out of it (OWASP, "Device cookies").
 */
import { createHmac, timingSafeEqual } from 'node:crypto'
import { newToken } from '../base/token.ts'

/** People who share a device; the one who was there longest ago goes first. */
const MOST = 8

/** The name of this browser for one person, if it is known to them. `key`: the workspace's, as hex. */
export function findKnown(key: string, mark: string | undefined, person: number): string | undefined {
	return marksOf(mark).find((each) => {
		const [name = '', seal = ''] = each.split('.')
		return isSame(seal, sealOf(key, person, name))
	})
}

/** What the browser is to keep from now on, now that it has signed somebody in. */
export function addKnown(key: string, mark: string | undefined, person: number): string {
	const known = findKnown(key, mark, person)
	const name = newToken()
	const own = known ?? `${name}.${sealOf(key, person, name)}`
	return [own, ...marksOf(mark).filter((each) => each !== own)].slice(0, MOST).join('~')
}

function marksOf(mark: string | undefined): string[] {
	return (mark ?? '').split('~', MOST).filter((each) => each !== '')
}

function sealOf(key: string, person: number, name: string): string {
	return createHmac('sha256', Buffer.from(key, 'hex')).update(`known browser ${person} ${name}`).digest('base64url')
}

function isSame(one: string, other: string): boolean {
	const [a, b] = [Buffer.from(one), Buffer.from(other)]
	return a.length === b.length && timingSafeEqual(a, b)
}
