/** The draft of an app as somebody sees it: in frames on the Bench, and on devices that follow them. */
import { z } from 'zod'
import type { Kinds } from './pair.ts'

export const lookSchema = z.discriminatedUnion('kind', [
	/** Begins to look; the token is this builder's alone. */
	z.object({ kind: z.literal('begin'), app: z.number().int(), person: z.number().int() }),
	/** Makes a code by which one device may follow a look, once. */
	z.object({ kind: z.literal('offer'), token: z.string().max(60) }),
	/** The devices that follow, and offers that nobody has taken yet. */
	z.object({ kind: z.literal('list') }),
	z.object({ kind: z.literal('end'), id: z.string().max(40) })
])

export type LookRequests = Kinds<
	typeof lookSchema,
	{ begin: { readonly token: string }; offer: OfferedCode; list: readonly FollowedLook[]; end: void }
>

export interface OfferedCode {
	readonly id: string
	/** In two groups, to be typed where nothing scans. */
	readonly code: string
	/** Where it is used. */
	readonly address: string
	/** The address as SVG, to be scanned. */
	readonly picture: string
	/** Epoch ms. */
	readonly until: number
}

export interface FollowedLook {
	readonly id: string
	/** The look that is followed, by its token. */
	readonly look: string
	/** As whom it shows the app. */
	readonly name: string
	/** The device, as it calls itself, and since when; null while nobody has used the code. */
	readonly taken: { readonly agent: string; readonly at: number } | null
	/** Epoch ms. */
	readonly until: number
}
