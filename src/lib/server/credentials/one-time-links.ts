/**
 * Links that let somebody in once: an invitation, a new password, the first steward. Only the SHA-256 of a link's token is
 * kept; it ends by itself, and with the first use of any link of its person.
 */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { addMessage } from '../queue/messages.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { hashToken, newToken } from '../base/token.ts'
import { describePerson, findPersonByEmail, putAccount } from '../rights/accounts.ts'
import { mayUsePassword, NO_PASSWORDS, readSignInWays } from './password-use.ts'
import { isSuspended } from '../rights/roles-held.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'

export type LinkKind = 'invitation' | 'password' | 'first steward'

const LASTS_MS: Readonly<Record<LinkKind, number>> = {
	invitation: 7 * 86_400_000,
	password: 2 * 3_600_000,
	'first steward': 86_400_000
}
/** So many links for a new password within an hour; further asking does nothing. */
const MOST_AN_HOUR = 3

const ADD = `
	INSERT INTO pass (token_hash, kind, person, made_at, made_by, expires_at)
	VALUES (@hash, @kind, @person, @now, @by, @expiresAt)`
const FIND = `SELECT kind, person FROM pass WHERE token_hash = @hash AND used_at IS NULL AND expires_at > @now`
const END = `UPDATE pass SET used_at = @now WHERE person = @person AND used_at IS NULL`
const LATELY = `SELECT count(*) FROM pass WHERE person = @person AND kind = 'password' AND made_at > @since`
const HAS_ACCOUNT = `SELECT 1 FROM account WHERE person = ?`
const WAS_INVITED = `SELECT 1 FROM pass WHERE person = ? AND kind = 'invitation'`
const END_SESSIONS = `DELETE FROM session WHERE person = ?`

/** Makes a link and gives its token, which is kept nowhere. */
export function makeOneTimeLink(
	store: Store,
	{ kind, person, by, now }: { kind: LinkKind; person: number; by: number | null; now: number }
): string {
	const token = newToken()
	store.prepare(ADD).run({ hash: hashToken(token), kind, person, by, now, expiresAt: now + LASTS_MS[kind] })
	return token
}

export interface Inviting extends ByActor {
	readonly person: number
	/** In the inviter's words; may be empty. */
	readonly words: string
}

/** Sends an invitation; those sent before are of no use any more. */
export function invite(store: Store, { person, words, actor, now }: Inviting): void {
	refuseUnlessSteward(store, actor)
	const who = describePerson(store, person)
	if (!who) throw new AppError('not_found', 'This person is not there.')
	if (who.email === '') throw new AppError('invalid', `${who.name} has no address to write to.`)
	if (isSuspended(store, person)) throw new AppError('invalid', `${who.name} is suspended. Let them back in first.`)
	store.prepare(END).run({ person, now })
	const token = makeOneTimeLink(store, { kind: 'invitation', person, by: actor.person, now })
	const { name } = store.workspace()
	const inviter = describePerson(store, actor.person)?.name ?? 'A steward'
	const own = words.trim() === '' ? '' : `\n\n${words.trim().slice(0, 2000)}`
	const byPassword = mayUsePassword(store, { person })
	const providers = readSignInWays(store).providers.map((each) => each.name)
	const how = byPassword
		? 'Choose a password by this link. It works once, for seven days.'
		: `Sign in with ${providers.join(' or ')}, by this address.`
	addMessage(store, {
		kind: 'account',
		cause: `invitation ${hashToken(token).slice(0, 24)}`,
		person,
		subject: `${inviter} invites you to ${name}`,
		body: `${who.name},\n\n${inviter} has opened ${name} to you.${own}\n\n${how}`,
		link: byPassword ? `/join/${token}` : '/sign-in',
		now
	})
	const { people } = store.workspace().catalogue
	const entry = { at: now, person: actor.person, through: 'People' as const, kind: 'invite' }
	writeHistory(store, { ...entry, table: people.id, row: person, body: {} })
}

/** Says nothing of whether the address is known: whoever reads its mail finds out. */
export function askNewPassword(store: Store, { email, now }: { email: string; now: number }): void {
	const person = findPersonByEmail(store, email)
	if (person === undefined || isSuspended(store, person) || !mayUsePassword(store, { person })) return
	if (!store.prepare(HAS_ACCOUNT).get(person) && !store.prepare(WAS_INVITED).get(person)) return
	const lately = Number(
		store
			.prepare(LATELY)
			.pluck()
			.get({ person, since: now - 3_600_000 })
	)
	if (lately >= MOST_AN_HOUR) return
	const token = makeOneTimeLink(store, { kind: 'password', person, by: null, now })
	const who = describePerson(store, person)
	addMessage(store, {
		kind: 'account',
		cause: `password ${hashToken(token).slice(0, 24)}`,
		person,
		subject: `A new password for ${store.workspace().name}`,
		body: `${who?.name ?? ''},\n\nsomebody, we hope you, asked for a new password. Choose one by this link. It works once, for two hours.\n\nIf it was not you, do nothing: your password stays as it is.`,
		link: `/join/${token}`,
		now
	})
}

export interface FoundLink {
	readonly kind: LinkKind
	readonly name: string
	readonly email: string
}

/** What a link is for, if it still works. */
export function findOneTimeLink(store: Store, { token, now }: { token: string; now: number }): FoundLink | null {
	const link = readOneTimeLink(store, token, now)
	if (!link) return null
	const who = describePerson(store, link.person)
	return { kind: link.kind, name: who?.name ?? '', email: who?.email ?? '' }
}

/** Uses a link up: its person gets the password, every other link and every open session of theirs ends. */
export function useOneTimeLink(
	store: Store,
	{ token, hash, now }: { token: string; hash: string; now: number }
): { person: number } {
	const link = readOneTimeLink(store, token, now)
	if (!link || link.kind === 'first steward') throw new AppError('not_found', GONE)
	if (!mayUsePassword(store, { person: link.person })) throw new AppError('invalid', NO_PASSWORDS)
	setPassword(store, { person: link.person, hash, now, through: link.kind })
	return { person: link.person }
}

/** Uses the first steward's link up. */
export function takeFirstLink(store: Store, { token, now }: { token: string; now: number }): void {
	if (readOneTimeLink(store, token, now)?.kind !== 'first steward') throw new AppError('not_found', GONE)
	store.prepare(END).run({ person: 0, now })
}

function setPassword(
	store: Store,
	{ person, hash, now, through }: { person: number; hash: string; now: number; through: LinkKind }
): void {
	store.prepare(END).run({ person, now })
	store.prepare(END_SESSIONS).run(person)
	putAccount(store, { person, hash })
	writeHistory(store, { at: now, person, through, kind: 'set password', table: null, row: null, body: {} })
}

const GONE = 'This link has been used, or its time is over. Ask for a new one.'

function readOneTimeLink(store: Store, token: string, now: number): { kind: LinkKind; person: number } | undefined {
	const link = store.prepare(FIND).get({ hash: hashToken(token), now }) as
		// The columns that the statement names.
		{ kind: LinkKind; person: number } | undefined
	return link && !isSuspended(store, link.person) ? link : undefined
}
