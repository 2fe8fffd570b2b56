/** What somebody looks for on a screen, kept under a name, for themselves alone. */
import { AppError } from '$lib/core/app-error.ts'
import type { KeptSearch } from '$lib/core/requests/screens.ts'
import { findLiveApp } from '../releases/live.ts'
import { visitedApp } from '../rights/roles-held.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'

/** More than this nobody finds anything among. */
const MOST = 30

const LIST = `
	SELECT id, name, query, words FROM kept_search
	WHERE person = @person AND app = @app AND screen = @screen ORDER BY name`
const KEEP = `
	INSERT INTO kept_search (person, app, screen, name, query, words, made_at)
	VALUES (@person, @app, @screen, @name, @query, @words, @now)
	ON CONFLICT (person, app, screen, name) DO UPDATE SET query = excluded.query, words = excluded.words`
const FORGET = `DELETE FROM kept_search WHERE id = @id AND person = @person`

export interface OfScreen {
	readonly app: number
	readonly screen: string
	readonly actor: Actor
}

/** None for visitors, who are nobody in particular, and for who is only looked as. */
export function keptSearches(store: Store, { actor, ...place }: OfScreen): KeptSearch[] {
	if (!isSomebody(store, actor)) return []
	return store.prepare<KeptSearch>(LIST).all({ app: place.app, screen: place.screen, person: actor.person })
}

/** Under a name that is there already the new one takes its place. */
export function keepSearch(
	store: Store,
	{ actor, now, name, query, words, ...place }: OfScreen & Omit<KeptSearch, 'id'> & { now: number }
): void {
	if (!isSomebody(store, actor)) throw new AppError('forbidden', 'Searches are kept for people with an account.')
	const isThere = findLiveApp(store, place.app)?.document.screens.some(({ id }) => id === place.screen)
	if (!isThere) throw new AppError('not_found', 'This screen is not there, or not for you to see.')
	const kept = keptSearches(store, { ...place, actor })
	if (kept.length >= MOST && !kept.some((each) => each.name === name))
		throw new AppError('invalid', `You keep ${MOST} searches here already. Take one off first.`)
	const { app, screen } = place
	store.prepare(KEEP).run({ person: actor.person, app, screen, name, query, words, now })
}

export function forgetSearch(store: Store, { actor, id }: { actor: Actor; id: number }): void {
	store.prepare(FORGET).run({ id, person: actor.person })
}

function isSomebody(store: Store, { person, lookedAtBy }: Actor): boolean {
	return lookedAtBy === undefined && visitedApp(store, person) === undefined
}
