/**
 * By what somebody new proves at an app's door who they are: a link that is sent to their address, or a provider outside
 * that vouches for it. Stewards choose for each app; whatever they do not shut serves.
 */
import type { Proof } from '$lib/core/requests/joining.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { Store } from '../store/store.ts'
import { readSignInWays } from '../credentials/password-use.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'
import { appName, note } from './ways-in.ts'

/** Stands for a link by mail where providers stand by their numbers. */
export const BY_MAIL = 0

const SHUT = `SELECT provider FROM shut_at_door WHERE app = ?`
const SHUT_ONE = `INSERT INTO shut_at_door (app, provider) VALUES (?, ?) ON CONFLICT DO NOTHING`
const OPEN_ONE = `DELETE FROM shut_at_door WHERE app = ? AND provider = ?`

/** All that there are. A link by mail leads to a password, so it serves only where passwords serve everybody. */
export function proofsOf(store: Store, app: number): Proof[] {
	const shut = new Set(store.prepare(SHUT).pluck().all(app))
	const { passwords, providers } = readSignInWays(store)
	const mail = passwords ? [{ id: BY_MAIL, name: 'a link by mail' }] : []
	return [...mail, ...providers].map((proof) => ({ ...proof, open: !shut.has(proof.id) }))
}

export function isProofOpen(store: Store, app: number, proof: number): boolean {
	return proofsOf(store, app).some(({ id, open }) => id === proof && open)
}

export interface SettingProof extends ByActor {
	readonly app: number
	readonly proof: number
	readonly open: boolean
}

/** Says whether a way of proving who one is serves at an app's door; the last one stays open. */
export function setProof(store: Store, { app, proof, open, actor, now }: SettingProof): void {
	refuseUnlessSteward(store, actor)
	const name = appName(store, app)
	const all = proofsOf(store, app)
	const found = all.find(({ id }) => id === proof)
	if (!found) throw new AppError('not_found', 'Nobody can prove who they are by that here.')
	if (!open && all.every((each) => each.id === proof || !each.open))
		throw new AppError(
			'invalid',
			'Then nobody new could come in. Close the ways in themselves, if that is what you want.'
		)
	store.prepare(open ? OPEN_ONE : SHUT_ONE).run(app, proof)
	note(store, { actor, now }, open ? 'open at a door' : 'shut at a door', `${name}, ${found.name}`)
}

/** For stewards: each app that has ways in, and by what people prove there who they are. */
export function listProofs(
	store: Store,
	{ actor, apps }: ByActor & { apps: readonly number[] }
): { app: number; name: string; proofs: Proof[] }[] {
	refuseUnlessSteward(store, actor)
	return apps.map((app) => ({ app, name: appName(store, app), proofs: proofsOf(store, app) }))
}
