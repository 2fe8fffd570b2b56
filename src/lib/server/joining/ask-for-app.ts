/** Asking to be let into an app, or to see a screen of it, by somebody who is here already and came by a link that is not open to them. */
import { AppError } from '$lib/core/app-error.ts'
import { openThrottle } from '../base/throttle.ts'
import { addMessage } from '../queue/messages.ts'
import { findLiveApp } from '../releases/live.ts'
import { describePerson } from '../rights/accounts.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { visitedApp } from '../rights/roles-held.ts'
import type { Store } from '../store/store.ts'
import { mightLetIn } from './access-requests.ts'
import { note } from './ways-in.ts'

const ADD = `
	INSERT INTO knock (app, way, person, answer, state, at) VALUES (@app, NULL, @person, @answer, 'waiting', @now)
	ON CONFLICT DO NOTHING`

/** More than anybody asks for by hand. */
const asked = openThrottle(6)

/**
 * It lands with the stewards, who may give any role. Whether the app or the screen is there at all is told to nobody: who asks
 * for one that is not is answered alike.
 */
export function askForApp(
	store: Store,
	{ app, screen, words, actor, now }: ByActor & { app: number; screen: string; words: string }
): void {
	const { person } = actor
	if (visitedApp(store, person) !== undefined)
		throw new AppError('forbidden', 'This is for people with an account of their own. Sign in first.')
	if (!asked.take(String(person), now))
		throw new AppError('busy', 'You have asked very often. Wait a quarter of an hour, then ask again.')
	const live = findLiveApp(store, app)
	if (!live) return
	const title = live.document.screens.find(({ id }) => id === screen)?.title
	const answer = [...(title === undefined ? [] : [`For the screen ${title}.`]), words.trim()].filter(Boolean).join('\n')
	const { changes, lastInsertRowid } = store.prepare(ADD).run({ app, person, answer, now })
	if (changes === 0) return
	const { name } = live.document
	const who = describePerson(store, person)?.name ?? ''
	note(store, { actor, now }, 'ask for an app', name)
	for (const steward of mightLetIn(store, null)) {
		if (steward === person) continue
		addMessage(store, {
			cause: `knock ${lastInsertRowid} ${steward}`,
			person: steward,
			subject: `${who} asks to come into ${name}`,
			body: `${who} came to ${name} by a link that is not open to them.${answer === '' ? '' : `\n\n${answer}`}\n\nGive them a role or turn them away here.`,
			link: '/waiting',
			now
		})
	}
}
