/**
 * Accounts and sessions. Passwords are kept as argon2id hashes, session tokens as their SHA-256.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { Column } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { writeHistory } from '../history/history.ts'
import { throughText, type SignInThrough } from '../history/through.ts'
import type { Store } from '../store/store.ts'
import { heldRoles, isSuspended, readPersonRow, rolesOf, visitedApp } from './roles-held.ts'
import { BUILDER, STEWARD } from './system-roles.ts'

const SHUT_OUT = 'This account is suspended. Ask whoever looks after the workspace.'

/** Who is signed in, as pages need it. */
export interface SignedIn {
	readonly person: number
	readonly name: string
	readonly email: string
	readonly roleNames: readonly string[]
	readonly isBuilder: boolean
	readonly isSteward: boolean
	/** The one app that they look at without being named. */
	readonly visits?: number
}

export interface OpenSession extends SignedIn {
	/** Whether it is time to write down that it is in use. */
	readonly useIsDue: boolean
}

/** A session that was not used for so long has ended. */
export const IDLE_MS = 2 * 86_400_000
/** Use is written down no more often than this. */
const NOTED_MS = 15 * 60_000

const FIND_SESSION = `
	SELECT person, max(made_at, seen_at) AS seenAt FROM session
	WHERE token_hash = @tokenHash AND expires_at > @now AND max(made_at, seen_at) > @idle`
const NOTE_USE = `UPDATE session SET seen_at = @now WHERE token_hash = @tokenHash AND seen_at < @now`
const ADD_SESSION = `
	INSERT INTO session (token_hash, person, made_at, expires_at, through, agent)
	VALUES (@tokenHash, @person, @now, @expiresAt, @through, @agent)`
const END_SESSION = `DELETE FROM session WHERE token_hash = ? RETURNING person`
const END_OLD = `DELETE FROM session WHERE expires_at <= ?`
const LAST_IN = `UPDATE account SET last_in = ? WHERE person = ?`
const PUT_ACCOUNT = `
	INSERT INTO account (person, password_hash) VALUES (@person, @hash)
	ON CONFLICT (person) DO UPDATE SET password_hash = excluded.password_hash`

/** The number and password hash of the person with this address; undefined if nobody has it. */
export function findAccount(store: Store, { email }: { email: string }): { person: number; hash: string } | undefined {
	const { people } = store.workspace().catalogue
	const address = emailColumn(people.columns)
	const find = `
		SELECT p.n AS person, a.password_hash AS hash
		FROM t${people.id} AS p JOIN account AS a ON a.person = p.n
		WHERE p.c${address.id}k = ?`
	return store.prepare<{ person: number; hash: string }>(find).get(textKey(email.trim()))
}

/** Whoever has an address; undefined if nobody has. */
export function findPersonByEmail(store: Store, email: string): number | undefined {
	const { people } = store.workspace().catalogue
	const find = `SELECT n FROM t${people.id} WHERE c${emailColumn(people.columns).id}k = ?`
	return store.prepare<number>(find).pluck().get(textKey(email.trim()))
}

/** Who is signed in by this token; undefined where it ended, idled too long or its person is suspended. */
export function findSession(
	store: Store,
	{ tokenHash, now }: { tokenHash: string; now: number }
): OpenSession | undefined {
	const found = store.prepare(FIND_SESSION).get({ tokenHash, now, idle: now - IDLE_MS }) as
		// The columns that the statement names.
		{ person: number; seenAt: number } | undefined
	const who = found && !isSuspended(store, found.person) ? describePerson(store, found.person) : undefined
	return who && found && { ...who, useIsDue: now - found.seenAt > NOTED_MS }
}

/** Writes down that a session is in use, so that it does not end for lying idle. */
export function noteUse(store: Store, { tokenHash, now }: { tokenHash: string; now: number }): void {
	store.prepare(NOTE_USE).run({ tokenHash, now })
}

/** Who somebody is, with the roles that they hold now, as pages need it; undefined where nobody has that number. */
export function describePerson(store: Store, person: number): SignedIn | undefined {
	const { catalogue, roles } = store.workspace()
	const row = readPersonRow(store, person)
	if (!row) return undefined
	const held = heldRoles(store, person, row)
	const all = rolesOf(store, person, row)
	const label = catalogue.people.columns.find((column) => column.id === catalogue.people.label)
	const visits = visitedApp(store, person)
	return {
		person,
		name: String((label && row.value(label)) ?? ''),
		email: String(row.value(emailColumn(catalogue.people.columns)) ?? ''),
		roleNames: roles.filter((role) => held.includes(role.id)).map((role) => role.name),
		isBuilder: all.has(BUILDER),
		isSteward: all.has(STEWARD),
		...(visits === undefined ? {} : { visits })
	}
}

export interface NewSession {
	readonly tokenHash: string
	readonly person: number
	readonly now: number
	readonly expiresAt: number
	readonly through: SignInThrough
	/** What the browser calls itself, to tell sessions apart. */
	readonly agent: string
}

/** Throws `forbidden` for somebody who is suspended. */
export function addSession(store: Store, session: NewSession): void {
	const { person, now, through } = session
	if (isSuspended(store, person)) throw new AppError('forbidden', SHUT_OUT)
	store.prepare(END_OLD).run(now)
	store.prepare(ADD_SESSION).run({ ...session, through: throughText(through), agent: session.agent.slice(0, 200) })
	store.prepare(LAST_IN).run(now, person)
	writeHistory(store, { at: now, person, through, kind: 'sign in', table: null, row: null, body: {} })
}

/** A token that is none ends nothing. */
export function endSession(store: Store, { tokenHash, now }: { tokenHash: string; now: number }): void {
	const person = store.prepare<number>(END_SESSION).pluck().get(tokenHash)
	if (person === undefined) return
	writeHistory(store, { at: now, person, through: 'sign-out', kind: 'sign out', table: null, row: null, body: {} })
}

/** Lets the one connection that writes say that sessions ended, whatever ended them. */
export function watchSessions(store: Store): void {
	store.db.function('note_session_ended', () => {
		store.touched.add('sessions')
		return null
	})
	store.db.exec(`CREATE TEMP TRIGGER session_ended AFTER DELETE ON main.session BEGIN SELECT note_session_ended(); END`)
}

/** Sets the hash of a password; the account is made where there is none. */
export function putAccount(store: Store, { person, hash }: { person: number; hash: string }): void {
	store.prepare(PUT_ACCOUNT).run({ person, hash })
}

/** The column of People by which people are known when they sign in. */
export function emailColumn(columns: readonly Column[]): Column {
	const column = columns.find((each) => each.type === 'email')
	if (!column) throw new Error('Expected the people table to have an email column')
	return column
}
