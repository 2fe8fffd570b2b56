/** Whom the stand-in for a provider of sign-in can vouch for: the people of a demo, and whom the demo names as strangers. */
import { z } from 'zod'
import { describePerson } from '../rights/accounts.ts'
import { listPeople } from '../review/bench.ts'
import type { Store } from '../store/store.ts'

const strangersSchema = z.array(
	z.object({ subject: z.string(), name: z.string(), email: z.string(), vouched: z.boolean() })
)

/** `vouched`: whether the provider knows the address to be theirs. */
export type StandInPerson = z.output<typeof strangersSchema>[number]

const STRANGERS = `SELECT value FROM meta WHERE key = 'stand-in strangers'`

/** Whom the simulated provider knows: everybody with an address, and the demo's strangers. */
export function standInPeople(store: Store): StandInPerson[] {
	const known = listPeople(store).flatMap(({ person }) => {
		const who = describePerson(store, person)
		return who?.email ? [{ subject: `p${person}`, name: who.name, email: who.email, vouched: true }] : []
	})
	const strangers = store.prepare<string>(STRANGERS).pluck().get()
	return [...known, ...(strangers === undefined ? [] : strangersSchema.parse(JSON.parse(strangers)))]
}
