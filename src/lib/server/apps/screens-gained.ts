/** Who gets which screens by a release, and who loses some; as far as its builder may look at people and what they see. */
import type { AppDocument } from '$lib/core/app/document.ts'
import type { ScreenChange } from '$lib/core/requests/bench.ts'
import { readRelease } from '../releases/live.ts'
import { describePerson } from '../rights/accounts.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { peopleListed } from '../review/counts.ts'
import type { Store } from '../store/store.ts'
import { readDraft } from './apps.ts'
import { offeredTo } from './open-screen.ts'

export interface ScreensGained {
	/** Screen by screen, where something changes for somebody. */
	readonly changes: readonly ScreenChange[]
	/** Titles of those that nobody of them is offered, though they stand by themselves. */
	readonly forNobody: readonly string[]
}

export function screensGained(store: Store, { app, actor, now }: ByActor & { app: number }): ScreensGained {
	const { document, live } = readDraft(store, app)
	const before = live === null ? undefined : readRelease(store, app, live)
	const people = peopleListed(store).map((person) => {
		const offered = (of: AppDocument | undefined) =>
			of ? screensOf(store, { app, document: of, person, actor, now }) : NONE
		return { name: describePerson(store, person)?.name ?? '', was: offered(before), is: offered(document) }
	})
	const titles = new Map([...(before?.screens ?? []), ...document.screens].map(({ id, title }) => [id, title]))
	const changes = [...titles].map(([id, title]) => ({
		title,
		gains: people.filter(({ was, is }) => !was.has(id) && is.has(id)).map(({ name }) => name),
		loses: people.filter(({ was, is }) => was.has(id) && !is.has(id)).map(({ name }) => name)
	}))
	const forNobody = document.screens
		.filter(({ id, stands }) => stands !== 'only as lines of other screens' && !people.some(({ is }) => is.has(id)))
		.map(({ title }) => title)
	return { changes: changes.filter(({ gains, loses }) => gains.length + loses.length > 0), forNobody }
}

const NONE: ReadonlySet<string> = new Set()

interface Eyes extends ByActor {
	readonly app: number
	readonly document: AppDocument
	readonly person: number
}

function screensOf(store: Store, { app, document, person, actor, now }: Eyes): ReadonlySet<string> {
	const looked = { person, lookedAtBy: actor.person }
	return new Set(offeredTo(store, { app, draft: true, document, actor: looked, now }).offered.map(({ id }) => id))
}
