/** What everybody does with their own account: see where they are signed in, sign out elsewhere. */
import type { Store } from '../store.ts'
import { writeHistory } from '../rows/history.ts'

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
	WHERE person = @person AND expires_at > @now ORDER BY made_at DESC LIMIT 100`
const END_ONE = `DELETE FROM session WHERE person = @person AND substr(token_hash, 1, 16) = @id`
const END_OTHERS = `DELETE FROM session WHERE person = @person AND token_hash <> @keep`

export function listSessions(
	store: Store,
	{ person, tokenHash, now }: { person: number; tokenHash: string; now: number }
): OwnSession[] {
	const rows = store.prepare(LIST).all({ person, now }) as (Omit<OwnSession, 'id' | 'isThis'> & { hash: string })[]
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
