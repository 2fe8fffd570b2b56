/** By what people may sign in: the providers outside, and whether passwords serve everybody or stewards alone. */
import type { Store } from '../store/store.ts'
import { describePerson } from '../rights/accounts.ts'

const PROVIDERS = `SELECT id, name FROM provider ORDER BY name, id`
const PASSWORDS = `SELECT 1 FROM meta WHERE key = 'passwords' AND value = 'stewards'`

export const NO_PASSWORDS = 'Passwords serve stewards alone here. Sign in by one of the ways above.'

/** What the sign-in page offers. */
export interface SignInWays {
	readonly providers: readonly { readonly id: number; readonly name: string }[]
	/** False where only stewards may still use one: they must always get in. */
	readonly passwords: boolean
}

/** By what people can sign in here: passwords, and providers by name. */
export function readSignInWays(store: Store): SignInWays {
	const providers = store.prepare<{ id: number; name: string }>(PROVIDERS).all()
	return { providers, passwords: store.prepare(PASSWORDS).get() === undefined }
}

/** Whether somebody may use a password: everybody, unless stewards keep it for themselves. */
export function mayUsePassword(store: Store, { person }: { person: number | undefined }): boolean {
	if (readSignInWays(store).passwords) return true
	return person !== undefined && describePerson(store, person)?.isSteward === true
}
