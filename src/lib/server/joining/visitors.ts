/**
 * Visitors: who looks at an app without signing in. All of an app's visitors are one row of people, which holds the one
 * role that its steward chose, and not what everyone who is named holds.
 */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { changeRows } from '../rows/change.ts'
import type { Store } from '../store/store.ts'
import { emailColumn } from '../rights/accounts.ts'
import { giveRole, takeRole } from '../people/grants.ts'

const OF_APP = `SELECT person FROM visitor WHERE app = ?`
const ADD = `INSERT INTO visitor (person, app) VALUES (@person, @app)`
const HELD = `SELECT role FROM role_held WHERE person = ?`
const END_SESSIONS = `DELETE FROM session WHERE person = ?`
const IS_OPEN = `
	SELECT v.person FROM visitor AS v JOIN way_in AS w ON w.app = v.app AND w.kind = 'visitors' WHERE v.app = ?`

interface OfApp extends ByActor {
	readonly app: number
}

export function openToVisitors(
	store: Store,
	{ app, name, role, actor, now }: OfApp & { name: string; role: number }
): void {
	const person = visitorRow(store, { app, name, actor, now })
	for (const held of store.prepare<number>(HELD).pluck().all(person))
		if (held !== role) takeRole(store, { person, role: held, actor, now })
	giveRole(store, { person, role, mayPassOn: false, actor, now })
}

/** Those who are looking are shown out at once. */
export function closeToVisitors(store: Store, { app, actor, now }: OfApp): void {
	const person = store.prepare<number>(OF_APP).pluck().get(app)
	if (person === undefined) return
	for (const role of store.prepare<number>(HELD).pluck().all(person)) takeRole(store, { person, role, actor, now })
	store.prepare(END_SESSIONS).run(person)
}

/** The row that stands for an app's visitors, while it is open to them. */
export function visitorOf(store: Store, { app }: { app: number }): number | null {
	return store.prepare<number>(IS_OPEN).pluck().get(app) ?? null
}

function visitorRow(store: Store, { app, name, actor, now }: OfApp & { name: string }): number {
	const known = store.prepare<number>(OF_APP).pluck().get(app)
	if (known !== undefined) return known
	const { people } = store.workspace().catalogue
	const cells = [
		{ column: people.label, value: `Visitors of ${name}` },
		// Nobody reads mail there (RFC 2606), so nobody can ask for a password either.
		{ column: emailColumn(people.columns).id, value: `visitors-${app}@visitors.invalid` }
	]
	const [added] = changeRows(store, [{ kind: 'add', table: people.id, cells }], { actor, now, through: 'Ways in' })
	const person = added && store.ids.fromId(people.id, added.row)
	if (person === undefined) throw new AppError('invalid', 'The row for visitors could not be made.')
	store.prepare(ADD).run({ person, app })
	return person
}
