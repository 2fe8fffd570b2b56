import type { Host } from '$lib/server/host/host.ts'
import type { SignedIn } from '$lib/server/rights/accounts.ts'

declare global {
	namespace App {
		interface Locals {
			host: Host
			/** Who is signed in; undefined for a visitor. */
			user: SignedIn | undefined
			/** Of the session by which they are; blank where there is none. */
			sessionHash: string
			/** Whether a device follows a Lookout, as the builder who looks: nobody is signed in on it. */
			isFollowing: boolean
			/** The network address that asks, by way of the proxies that the operator named. */
			from: string
			/** Epoch ms, the same throughout one request. */
			now: number
		}
		interface Error {
			message: string
		}
	}
}
