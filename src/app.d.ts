import type { Host } from '$lib/server/host.ts'
import type { SignedIn } from '$lib/server/people/accounts.ts'

declare global {
	namespace App {
		interface Locals {
			host: Host
			/** Who is signed in; undefined for a visitor. */
			user: SignedIn | undefined
			/** Epoch ms, the same throughout one request. */
			now: number
		}
		interface Error {
			message: string
		}
	}
}
