import { invalidate, invalidateAll } from '$app/navigation'
import { page } from '$app/state'
import { untrack } from 'svelte'
import { SIGNED_OUT } from './session/signed-out.ts'

/** Reads the page again whenever what it shows has changed, or who may see it. Returns what ends it. */
export function followTables(tables: readonly number[]): () => void {
	return onTablesChanged(tables, () => void invalidateAll(), 80)
}

/** The tables that changed; null where anything may have. */
export type ChangedTables = readonly number[] | null

/** How long until a stream that the server refused is asked for again; one that broke off is by the browser itself. */
const AGAIN_MS = 5000

/** A stream does not say why it was refused: it is asked for once more, as anything else is, and left at once. */
async function isSignedOut(address: string): Promise<boolean> {
	const left = new AbortController()
	const status = await fetch(address, { signal: left.signal }).then((answer) => answer.status, () => 0) // prettier-ignore
	left.abort()
	return status === 401
}

/**
 * Calls back when something of some tables, or who may see them, changed since the page was read; once for several changes
 * within `quietMs`. `look`: the token of a Lookout whose draft is followed too. Returns what ends it.
 */
export function onTablesChanged(
	tables: readonly number[],
	work: (changed: ChangedTables) => void,
	quietMs: number,
	look?: string
): () => void {
	const as = look === undefined ? '' : `&as=${look}`
	let timer: ReturnType<typeof setTimeout> | undefined
	let again: ReturnType<typeof setTimeout> | undefined
	let changed: ChangedTables = []
	const note = (said: ChangedTables): void => {
		clearTimeout(timer)
		changed = said === null || changed === null ? null : [...new Set([...changed, ...said])]
		timer = setTimeout(() => {
			work(changed)
			changed = []
		}, quietMs)
	}
	const open = (): EventSource => {
		const readAt = untrack(() => page.data['readAt'] as number)
		const address = `/events?tables=${tables.join(',')}&since=${readAt}${as}`
		const opened = new EventSource(address)
		opened.addEventListener('changed', ({ data }: MessageEvent<string>) => {
			// The stream says these or "all".
			const said = JSON.parse(data) as readonly number[] | 'all'
			note(said === 'all' ? null : said)
		})
		opened.addEventListener('told', () => {
			// What is read again where nobody is signed in any more would be a page of its own, over what was typed.
			void isSignedOut(address).then((out) =>
				out ? window.dispatchEvent(new Event(SIGNED_OUT)) : void invalidate('app:waiting')
			)
		})
		opened.addEventListener('error', () => {
			if (opened.readyState !== EventSource.CLOSED) return
			// Where the session ended before anything could be told, what was typed stays, under a word that says so.
			void isSignedOut(address).then((out) => (out ? window.dispatchEvent(new Event(SIGNED_OUT)) : note(null)))
			again = setTimeout(() => (source = open()), AGAIN_MS)
		})
		return opened
	}
	let source = open()
	return () => {
		clearTimeout(timer)
		clearTimeout(again)
		source.close()
	}
}
