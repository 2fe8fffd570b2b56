/** A routine asks that somebody be given a role: it stands with those who may, beside who waits at doors. */
import { addMessage } from '../queue/messages.ts'
import { describePerson } from '../rights/accounts.ts'
import type { RoleAsked } from '../routines/ask-for-role.ts'
import type { Store } from '../store/store.ts'
import { mightLetIn } from './access-requests.ts'

const ADD = `
	INSERT INTO knock (app, way, person, answer, role, begun_by, released_by, state, at)
	VALUES (@app, NULL, @person, @words, @role, @begunBy, @releasedBy, 'waiting', @now)
	ON CONFLICT DO NOTHING`

/** Whoever set it off, or released it, is neither told nor asked; one that waits already stays. */
export function askStewardsForRole(store: Store, asked: RoleAsked): void {
	const { person, role, words, begunBy, releasedBy, now } = asked
	const { changes, lastInsertRowid } = store.prepare(ADD).run({ ...asked })
	if (changes === 0) return
	const name = describePerson(store, person)?.name ?? ''
	const called = store.workspace().roles.find(({ id }) => id === role)?.name ?? ''
	for (const to of mightLetIn(store, role)) {
		if ([person, begunBy, releasedBy].includes(to)) continue
		const subject = `${name} is to be ${called}`
		addMessage(store, {
			cause: `knock ${lastInsertRowid} ${to}`,
			person: to,
			subject,
			body: words,
			link: '/waiting',
			now
		})
	}
	store.touched.add('access')
}
