/**
 * What was typed into forms and not sent yet, kept on this device under the name of who typed it: the next person on the same
 * tablet neither sees it nor sends it. Signing out drops one's own, after saying so.
 */
import type { CellDraft } from '../../cells/cell-draft.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

export type Drafts = Record<number, CellDraft>

const BEGIN = 'tin-shed form '
/** Drafts were kept under no name once: whose they are cannot be told, so they are shown to nobody. */
const NAMED = /^tin-shed form [\w-]{16} \//

/** `owner`: as the page says (`draftsOf`). */
export function draftKey(owner: string, path: string, line: string): string {
	return `${BEGIN}${owner} ${path} ${line}`
}

export function readDrafts(key: string): Drafts | undefined {
	const stored = localStorage.getItem(key)
	return stored === null ? undefined : ownJson<Drafts>(stored)
}

/** A device's store is small: where a picture does not fit, the rest is kept all the same. */
export function keepDrafts(key: string, drafts: Drafts): void {
	try {
		localStorage.setItem(key, JSON.stringify(drafts))
	} catch {
		const light = Object.entries(drafts).filter(([, draft]) => draft.unsent === undefined)
		localStorage.setItem(key, JSON.stringify(Object.fromEntries(light)))
	}
}

/** How many forms somebody has begun on this device and not sent. */
export function countDrafts(owner: string): number {
	return keysOf(owner).length
}

/** Drops somebody's own, and those that are nobody's. */
export function dropDrafts(owner: string): void {
	for (const key of [...keysOf(owner), ...allKeys().filter((each) => !NAMED.test(each))]) localStorage.removeItem(key)
}

function keysOf(owner: string): string[] {
	return allKeys().filter((key) => key.startsWith(`${BEGIN}${owner} `))
}

function allKeys(): string[] {
	return Object.keys(localStorage).filter((key) => key.startsWith(BEGIN))
}
