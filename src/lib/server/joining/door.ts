/**
 * The door of an app: who stands before it gives a name and an address, a link is sent there, and using the link lets
 * them in, or onto the doorstep. Whether an address is known already is told to its mailbox only.
 */
import { AppError } from '$lib/core/app-error.ts'
import { changeRows } from '../rows/change.ts'
import { writeHistory } from '../history/history.ts'
import { addMessage } from '../queue/messages.ts'
import type { Store } from '../store/store.ts'
import { hashToken, newToken } from '../base/token.ts'
import { BY_MAIL, isProofOpen, proofsOf } from './door-proofs.ts'
import { describePerson, emailColumn, findPersonByEmail, putAccount } from '../rights/accounts.ts'
import { requestAccess, standingAtDoor, type AtDoor } from './access-requests.ts'
import { isSuspended } from '../rights/roles-held.ts'
import { appName, findAppName, findWay, isOver, letInBy, sameCode, waysOf, type WayIn } from './ways-in.ts'
import { mayUsePassword, NO_PASSWORDS } from '../credentials/password-use.ts'
import { visitorOf } from './visitors.ts'

export interface DoorSheet {
	readonly app: number
	readonly name: string
	readonly domains: readonly string[]
	readonly byCode: boolean
	readonly byPhrase: boolean
	/** What the doorstep asks; null where there is none. */
	readonly asks: string | null
	readonly visitors: boolean
	/** Whether a link that is sent to an address proves whose it is, and the providers that prove it. */
	readonly byMail: boolean
	readonly providers: readonly { readonly id: number; readonly name: string }[]
	/** How far whoever is signed in has come. */
	readonly at: AtDoor | null
}

/** What stands on an app's door; null where no way leads in. */
export function readDoor(
	store: Store,
	{ app, person }: { app: number; person?: number | undefined }
): DoorSheet | null {
	const ways = waysOf(store, app)
	const name = findAppName(store, app)
	if (ways.length === 0 || name === undefined) return null
	const proofs = proofsOf(store, app).filter(({ open }) => open)
	const doorstep = ways.find((way) => way.kind === 'doorstep')
	return {
		app,
		name,
		domains: ways.filter((way) => way.kind === 'domain').map((way) => way.word),
		byCode: ways.some((way) => way.kind === 'code'),
		byPhrase: ways.some((way) => way.kind === 'phrase'),
		asks: doorstep ? doorstep.asks : null,
		visitors: visitorOf(store, { app }) !== null,
		byMail: proofs.some(({ id }) => id === BY_MAIL),
		providers: proofs.filter(({ id }) => id !== BY_MAIL).map(({ id, name: provider }) => ({ id, name: provider })),
		at: person === undefined ? null : standingAtDoor(store, { app, person })
	}
}

/** The hash of an app's pass phrase, to be compared away from the store; null where it has none. */
export function readPhrase(store: Store, { app }: { app: number }): string | null {
	return waysOf(store, app).find((way) => way.kind === 'phrase')?.word ?? null
}

export interface Coming {
	readonly app: number
	readonly code: string
	readonly answer: string
	/** The phrase that was given is right: it was looked at before, since that takes long. */
	readonly phraseIsRight: boolean
	readonly now: number
}

/** Sends a link to the address that was given at a door. */
export function arrive(store: Store, { name, email, ...coming }: Coming & { name: string; email: string }): void {
	const way = chooseWay(store, { ...coming, email })
	if (!mayUsePassword(store, { person: findPersonByEmail(store, email) })) throw new AppError('invalid', NO_PASSWORDS)
	if (!isProofOpen(store, coming.app, BY_MAIL)) throw new AppError('invalid', NOT_BY_MAIL)
	const token = newToken()
	const { app, answer, now } = coming
	const lately = Number(
		store
			.prepare(LATELY)
			.pluck()
			.get({ email, since: now - 3_600_000 })
	)
	// Whoever's address it is must not be flooded; whoever gives it is told the same.
	if (lately >= MOST_AN_HOUR) return
	store.prepare(DROP_OLD).run(now - LASTS_MS)
	store.prepare(ADD).run({ hash: hashToken(token), way: way.id, name, email, answer, now, expiresAt: now + LASTS_MS })
	const title = appName(store, app)
	addMessage(store, {
		cause: `arrival ${hashToken(token).slice(0, 24)}`,
		person: 0,
		to: { name: '', email },
		subject: `Your way into ${title}`,
		// Without the name that was given: whoever asks could have us write anything to anybody.
		body: `Somebody, we hope you, asked to come into ${title} of ${store.workspace().name} with this address. Come in by this link. It works once, for a day.\n\nIf it was not you, do nothing.`,
		link: `/door/${app}/${token}`,
		now
	})
}

/** Whoever is signed in comes in at once, or onto the doorstep. */
export function comeIn(store: Store, { person, ...coming }: Coming & { person: number }): AtDoor {
	const { app, answer, now } = coming
	const email = describePerson(store, person)?.email ?? ''
	enter(store, chooseWay(store, { ...coming, email }), { person, answer, now })
	return standingAtDoor(store, { app, person })
}

export interface FoundSignUp {
	readonly app: number
	readonly appName: string
	readonly name: string
	readonly email: string
	/** Whether this address has a password here already. */
	readonly known: boolean
}

/** Whose link this is; null where it is used, too old or of a way in that is closed. */
export function findSignUp(store: Store, { token, now }: { token: string; now: number }): FoundSignUp | null {
	const signUp = readSignUp(store, token, now)
	const way = signUp && findWay(store, signUp.way)
	if (!signUp || !way) return null
	const person = findPersonByEmail(store, signUp.email)
	const known = person !== undefined && store.prepare(HAS_ACCOUNT).get(person) !== undefined
	return { app: way.app, appName: appName(store, way.app), name: signUp.name, email: signUp.email, known }
}

/**
 * Uses the link up: whoever read the mail owns the address. A new person gets a row and the password; one who has a
 * password already keeps it, and signs in with it. Gives who it is, and whether they begin a session now.
 */
export function completeSignUp(
	store: Store,
	{ token, hash, now }: { token: string; hash: string | undefined; now: number }
): { person: number; isNew: boolean; app: number } {
	const signUp = readSignUp(store, token, now)
	const way = signUp && findWay(store, signUp.way)
	if (!signUp || !way)
		throw new AppError('not_found', 'This link has been used, or its time is over. Ask again at the door.')
	store.prepare(END).run({ hash: hashToken(token), now })
	const known = findPersonByEmail(store, signUp.email)
	if (known !== undefined && isSuspended(store, known))
		throw new AppError('forbidden', 'This account is suspended. Ask whoever looks after the workspace.')
	const person = known ?? addPersonBy(store, way, signUp, now)
	const isNew = store.prepare(HAS_ACCOUNT).get(person) === undefined
	if (isNew) {
		if (hash === undefined) throw new AppError('invalid', 'Choose a password first.')
		putAccount(store, { person, hash })
		writeHistory(store, { at: now, person, through: 'door', kind: 'set password', table: null, row: null, body: {} })
	}
	enter(store, way, { person, answer: signUp.answer, now })
	return { person, isNew, app: way.app }
}

/** Whoever's address is proved otherwise than by a link: a new person gets a row, and all come in by the way that fits. */
export function addPersonAtDoor(
	store: Store,
	{ name, email, known, ...coming }: Coming & { name: string; email: string; known: number | undefined }
): number {
	const way = chooseWay(store, { ...coming, email })
	const { answer, now } = coming
	const person = known ?? addPersonBy(store, way, { name, email }, now)
	enter(store, way, { person, answer, now })
	return person
}

/** By code or phrase if one was given, else by the address, else onto the doorstep. */
function chooseWay(store: Store, { app, code, phraseIsRight, email, now }: Coming & { email: string }): WayIn {
	const ways = waysOf(store, app)
	if (ways.length === 0) throw new AppError('not_found', 'No way leads in here. Ask whoever looks after the workspace.')
	if (code.trim() !== '') {
		const found = ways.find((way) => way.kind === 'code' && sameCode(way.word, code))
		const phrase = phraseIsRight ? ways.find((way) => way.kind === 'phrase') : undefined
		const way = found ?? phrase
		if (!way) throw new AppError('invalid', 'That is not a code of this app. Look at it again, or ask for another.')
		const over = isOver(way, now)
		if (over !== undefined) throw new AppError('invalid', over)
		return way
	}
	const domain = email.split('@')[1]?.toLowerCase() ?? ''
	const way =
		ways.find((each) => each.kind === 'domain' && each.word === domain) ?? ways.find((each) => each.kind === 'doorstep')
	if (way) return way
	const domains = ways.filter((each) => each.kind === 'domain').map((each) => each.word)
	throw new AppError(
		'invalid',
		domains.length > 0
			? `Only addresses at ${domains.join(' or ')} come in without a code.`
			: 'Write the code that you were given.'
	)
}

function enter(
	store: Store,
	way: WayIn,
	{ person, answer, now }: { person: number; answer: string; now: number }
): void {
	if (way.kind === 'doorstep') requestAccess(store, way, { person, answer, now })
	else letInBy(store, way, { person, now })
}

const NOT_BY_MAIL = 'No links are sent from this door. Come in by one of the ways above.'

interface SignUp {
	readonly way: number
	readonly name: string
	readonly email: string
	readonly answer: string
}

const LASTS_MS = 86_400_000
const MOST_AN_HOUR = 3
const ADD = `
	INSERT INTO arrival (token_hash, way, name, email, answer, made_at, expires_at)
	VALUES (@hash, @way, @name, @email, @answer, @now, @expiresAt)`
const FIND = `
	SELECT way, name, email, answer FROM arrival WHERE token_hash = @hash AND used_at IS NULL AND expires_at > @now`
const END = `UPDATE arrival SET used_at = @now WHERE token_hash = @hash`
/** Names and addresses of strangers are kept no longer than their links can be spoken of. */
const DROP_OLD = `DELETE FROM arrival WHERE expires_at < ?`
const LATELY = `SELECT count(*) FROM arrival WHERE email = @email AND made_at > @since`
const HAS_ACCOUNT = `SELECT 1 FROM account WHERE person = ?`

function readSignUp(store: Store, token: string, now: number): SignUp | undefined {
	return store.prepare<SignUp>(FIND).get({ hash: hashToken(token), now })
}

/** On behalf of the steward who opened the way. */
function addPersonBy(
	store: Store,
	{ by }: WayIn,
	{ name, email }: Pick<SignUp, 'name' | 'email'>,
	now: number
): number {
	const { people } = store.workspace().catalogue
	const cells = [
		{ column: people.label, value: name },
		{ column: emailColumn(people.columns).id, value: email }
	]
	const context = { actor: { person: by }, now, through: 'door' as const }
	const [added] = changeRows(store, [{ kind: 'add', table: people.id, cells }], context)
	const person = added && store.ids.fromId(people.id, added.row)
	if (person === undefined) throw new Error('Expected a new person to have a number')
	return person
}
