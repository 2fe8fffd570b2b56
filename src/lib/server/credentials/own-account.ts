/** What everybody does with their own account: see where they are signed in, sign out elsewhere. */
import { AppError } from '$lib/core/app-error.ts'
import type { Store } from '../store/store.ts'
import { IDLE_MS } from '../rights/accounts.ts'
import { writeHistory } from '../history/history.ts'

export interface OwnSession {
	/** A name for it that opens nothing. */
	readonly id: string
	readonly madeAt: number
	readonly expiresAt: number
	readonly through: string
	readonly agent: string
	readonly isThis: boolean
}

const LIST = `
	SELECT token_hash AS hash, made_at AS madeAt, expires_at AS expiresAt, through, agent FROM session
	WHERE person = @person AND expires_at > @now AND max(made_at, seen_at) > @idle ORDER BY made_at DESC LIMIT 100`
const ZONE = `SELECT time_zone FROM person_setting WHERE person = ?`
const SET_ZONE = `
	INSERT INTO person_setting (person, time_zone) VALUES (@person, @zone)
	ON CONFLICT (person) DO UPDATE SET time_zone = excluded.time_zone`
const CLEAR_ZONE = `DELETE FROM person_setting WHERE person = ?`
const END_ONE = `DELETE FROM session WHERE person = @person AND substr(token_hash, 1, 16) = @id`
const END_OTHERS = `DELETE FROM session WHERE person = @person AND token_hash <> @keep`

/** Where somebody is signed in, the latest use first; the session that asks is marked. */
export function listSessions(
	store: Store,
	{ person, tokenHash, now }: { person: number; tokenHash: string; now: number }
): OwnSession[] {
	const rows = store
		.prepare<
			Omit<OwnSession, 'id' | 'isThis'> & {
				hash: string
			}
		>(LIST)
		.all({ person, now, idle: now - IDLE_MS })
	return rows.map(({ hash, ...row }) => ({ ...row, id: hash.slice(0, 16), isThis: hash === tokenHash }))
}

export function endOwnSession(store: Store, { person, id, now }: { person: number; id: string; now: number }): void {
	if (store.prepare(END_ONE).run({ person, id }).changes > 0) note(store, 'end a session', { person, now })
}

export function endOtherSessions(
	store: Store,
	{ person, tokenHash, now }: { person: number; tokenHash: string; now: number }
): void {
	store.prepare(END_OTHERS).run({ person, keep: tokenHash })
	note(store, 'sign out everywhere else', { person, now })
}

/** A new password ends every session but the one that chose it. */
export function changeOwnPassword(
	store: Store,
	{ person, hash, tokenHash, now }: { person: number; hash: string; tokenHash: string; now: number }
): void {
	store.prepare(`UPDATE account SET password_hash = ? WHERE person = ?`).run(hash, person)
	store.prepare(END_OTHERS).run({ person, keep: tokenHash })
	note(store, 'change password', { person, now })
}

function note(store: Store, kind: string, { person, now }: { person: number; now: number }): void {
	writeHistory(store, { at: now, person, through: 'account', kind, table: null, row: null, body: {} })
}

/** Somebody's time zone, and the workspace's, which is theirs where they say nothing. */
export function readZone(store: Store, { person }: { person: number }): { own: string | null; workspace: string } {
	const own = store.prepare<string>(ZONE).pluck().get(person) ?? null
	return { own, workspace: store.workspace().timeZone }
}

/** `zone`: a name of the IANA time zone database; blank for the workspace's. It decides what TODAY() is for them. */
export function setZone(store: Store, { person, zone, now }: { person: number; zone: string; now: number }): void {
	if (zone === '') store.prepare(CLEAR_ZONE).run(person)
	else {
		if (!isZone(zone)) throw new AppError('invalid', 'There is no time zone of that name. Choose one from the list.')
		store.prepare(SET_ZONE).run({ person, zone })
	}
	store.touched.add('access')
	note(store, 'set time zone', { person, now })
}

function isZone(zone: string): boolean {
	return Intl.supportedValuesOf('timeZone').includes(zone) || zone === 'UTC'
}
