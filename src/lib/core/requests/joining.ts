/** The ways into an app, and who is waiting at its door. */
import { z } from 'zod'
import type { Pair, Sendable } from './pair.ts'

/** Lets somebody in from the doorstep, or turns them away. `role`: what they get, where they asked without a way that says so. */
export const doorSchema = z.object({
	id: z.number().int(),
	letIn: z.boolean(),
	role: z.number().int().positive().optional()
})
export type AtTheDoor = Pair<Sendable<z.input<typeof doorSchema>>, void>

/** Asks to be let into an app; `screen`: the one that was wanted, blank for the app itself. */
export const askForAppSchema = z.object({
	app: z.number().int(),
	screen: z.string().max(40),
	words: z.string().max(1_000)
})
export type AskForApp = Pair<Sendable<z.input<typeof askForAppSchema>>, void>

export interface Proof {
	/** A provider's number, or `BY_MAIL`. */
	readonly id: number
	readonly name: string
	readonly open: boolean
}

export interface AccessRequest {
	readonly id: number
	readonly app: string
	readonly name: string
	readonly email: string
	readonly asks: string
	readonly answer: string
	/** Null where they came by no way in: then whoever lets them in chooses one of the roles. */
	readonly gives: string | null
	readonly roles: readonly { readonly id: number; readonly name: string }[]
	readonly at: number
}

export interface Provider {
	readonly id: number
	readonly name: string
	/** Blank for the demo's stand-in, whose address is another at each start. */
	readonly issuer: string
	readonly clientId: string
}

export interface ShownWay {
	readonly id: number
	readonly app: number
	readonly appName: string
	readonly kind: WayKind
	/** The domain or the code. Not of a phrase: nobody can read it any more. */
	readonly word: string
	readonly role: number | null
	readonly team: number | null
	readonly usesLeft: number | null
	/** Epoch ms. */
	readonly endsAt: number | null
	readonly asks: string
	readonly words: string
	readonly gives: string
	readonly openedBy: string
}

export type WayKind = 'domain' | 'code' | 'phrase' | 'doorstep' | 'visitors'
