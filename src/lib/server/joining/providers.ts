/**
 * Providers outside by which people sign in, who they are there, and whether passwords serve as well. Stewards choose.
 *
 * A provider vouches for an address; whoever has it in the people table is that person, and from then on is known by the
 * provider's own name for them, also when their address changes. Nobody comes in who is not in the people table: that is
 * what the doors of apps are for.
 */
import type { Provider } from '$lib/core/requests/joining.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { describePerson, findPersonByEmail } from '../rights/accounts.ts'
import { addPersonAtDoor, type Coming } from './door.ts'
import { isProofOpen } from './door-proofs.ts'
import { readSignInWays } from '../credentials/password-use.ts'
import { isSuspended } from '../rights/roles-held.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'

const LIST = `SELECT id, name, issuer, client_id AS clientId FROM provider ORDER BY name, id`
const FIND = `
	SELECT id, name, issuer, client_id AS clientId, sealed_secret AS sealedSecret FROM provider WHERE id = ?`
const ADD = `
	INSERT INTO provider (name, issuer, client_id, sealed_secret, made_at, made_by)
	VALUES (@name, @issuer, @clientId, @sealedSecret, @now, @by)
	ON CONFLICT (issuer) DO NOTHING`
const REMOVE = `DELETE FROM provider WHERE id = ?`
const KNOWN = `SELECT person FROM identity WHERE provider = @provider AND subject = @subject`
const LINK = `INSERT INTO identity (provider, subject, person, linked_at) VALUES (@provider, @subject, @person, @now)`
const CAME_IN = `UPDATE identity SET last_in = @now WHERE provider = @provider AND subject = @subject`
const SET_PASSWORDS = `
	INSERT INTO meta (key, value) VALUES ('passwords', @value) ON CONFLICT (key) DO UPDATE SET value = excluded.value`

/** For stewards alone. */
export function listProviders(store: Store, { actor }: ByActor): Provider[] {
	refuseUnlessSteward(store, actor)
	return store.prepare<Provider>(LIST).all()
}

/** With its secret as it is sealed, for the server's own use. */
export function findProvider(
	store: Store,
	{ provider }: { provider: number }
): (Provider & { readonly sealedSecret: string }) | null {
	return store.prepare<Provider & { sealedSecret: string }>(FIND).get(provider) ?? null
}

export interface NewProvider extends ByActor, Omit<Provider, 'id'> {
	readonly sealedSecret: string
}

/** Adds a provider that was reached before: its issuer answers for itself. */
export function addProvider(store: Store, { actor, now, ...provider }: NewProvider): void {
	refuseUnlessSteward(store, actor)
	if (store.prepare(ADD).run({ ...provider, now, by: actor.person }).changes === 0)
		throw new AppError('invalid', 'This provider stands there already. Remove it first, to write it anew.')
	note(store, { actor, now }, 'add a provider', provider.name)
}

/** Who came in by it is nobody there any more; their accounts stay. */
export function removeProvider(store: Store, { provider, actor, now }: ByActor & { provider: number }): void {
	refuseUnlessSteward(store, actor)
	const found = findProvider(store, { provider })
	if (!found) throw new AppError('not_found', 'This provider is gone already.')
	const last = readSignInWays(store).providers.length === 1
	if (last && !readSignInWays(store).passwords)
		throw new AppError('invalid', 'Nobody but stewards could sign in without it. Open passwords to everybody first.')
	store.prepare(REMOVE).run(provider)
	note(store, { actor, now }, 'remove a provider', found.name)
}

/** Whether everybody signs in by password, or stewards alone; the latter only beside a provider. */
export function openPasswords(store: Store, { open, actor, now }: ByActor & { open: boolean }): void {
	refuseUnlessSteward(store, actor)
	if (!open && readSignInWays(store).providers.length === 0)
		throw new AppError('invalid', 'Add a provider first: without one, nobody but stewards could sign in.')
	store.prepare(SET_PASSWORDS).run({ value: open ? 'everybody' : 'stewards' })
	note(store, { actor, now }, 'say who signs in by password', open ? 'everybody' : 'stewards')
}

/** Somebody as a provider says they are, its signature checked. */
export interface Vouched {
	readonly provider: number
	readonly subject: string
	readonly name: string
	/** Undefined where the provider does not vouch for it. */
	readonly email: string | undefined
}

/** Who somebody at a provider is here, known by its name for them or, the first time, by their address; null if nobody. */
export function comeFromProvider(store: Store, { vouched, now }: { vouched: Vouched; now: number }): number | null {
	const { provider, subject, email } = vouched
	const known = store.prepare<number>(KNOWN).pluck().get({ provider, subject })
	const person = known ?? (email === undefined ? undefined : findPersonByEmail(store, email))
	if (person === undefined || !describePerson(store, person)) return null
	if (known === undefined) link(store, vouched, person, now)
	store.prepare(CAME_IN).run({ provider, subject, now })
	return person
}

/** Somebody new comes in at an app's door; the provider stands for the link that would be sent to their address. */
export function arriveVouched(
	store: Store,
	{ vouched, ...coming }: Coming & { vouched: Vouched & { email: string } }
): number {
	const { email } = vouched
	if (!isProofOpen(store, coming.app, vouched.provider))
		throw new AppError('forbidden', 'This provider does not serve at this door. Come in by one of the ways above.')
	const known = findPersonByEmail(store, email)
	if (known !== undefined && isSuspended(store, known))
		throw new AppError('forbidden', 'This account is suspended. Ask whoever looks after the workspace.')
	const person = addPersonAtDoor(store, { ...coming, email, name: vouched.name || email, known })
	if (comeFromProvider(store, { vouched, now: coming.now }) !== person)
		throw new Error('Expected somebody who came in to be known by their provider')
	return person
}

function link(store: Store, { provider, subject }: Vouched, person: number, now: number): void {
	store.prepare(LINK).run({ provider, subject, person, now })
	const name = findProvider(store, { provider })?.name ?? ''
	const { people } = store.workspace().catalogue
	const entry = { at: now, person, through: { provider: name }, kind: 'known by a provider' }
	writeHistory(store, { ...entry, table: people.id, row: person, body: {} })
}

function note(store: Store, { actor, now }: ByActor, kind: string, name: string): void {
	const entry = { at: now, person: actor.person, through: 'Signing in' as const, kind, table: null, row: null }
	writeHistory(store, { ...entry, body: { name } })
	store.touched.add('access')
}
