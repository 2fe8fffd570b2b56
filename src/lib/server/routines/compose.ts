/** Puts a message into words for the one who will read it: what they may not see is left out, and `me` is they. */
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { parseMessage, showResult } from '$lib/core/routine/message-text.ts'
import { momentShown } from '../rights/shown-me.ts'
import { momentAt, standingOf } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { givenOf, workOut, type RowAt, type Sight } from './work-out.ts'

export interface Composing {
	/** The row that it is about, and the one around that. */
	readonly at: RowAt | undefined
	readonly outer: RowAt | undefined
	/** What is held by name, of what they may read. */
	readonly here?: Here | undefined
	/** Who will read it. */
	readonly to: number
	readonly now: number
}

export function composeFor(store: Store, text: string, { at, outer, here, to, now }: Composing): string {
	const standing = standingOf(store, { person: to }, now)
	const { me } = momentShown(store, standing)
	const moment = { ...momentAt(store.workspace().timeZone, now), ...(me ? { me } : {}) }
	return composeAs(store, text, { at, outer, here, sight: { moment, rights: standing.rights } })
}

/** With the sight of a role; `me` is nobody there. */
export function composeAs(
	store: Store,
	text: string,
	{ at, outer, here, sight }: Omit<Composing, 'to' | 'now'> & { readonly sight: Required<Sight> }
): string {
	const { catalogue } = store.workspace()
	const scope = { catalogue, rows: at ? [at.table] : [], me: true, here }
	return parseMessage(text, outer ? { ...scope, given: givenOf(store, outer, sight) } : scope)
		.parts.map((part) =>
			'text' in part ? part.text : showResult(part.expr, workOut(store, part.expr, { ...at, ...sight }), catalogue)
		)
		.join('')
}
