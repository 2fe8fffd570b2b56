/** What the page of people is told. */
import { z } from 'zod'
import { cellChangesSchema, rowIdSchema } from './cells.ts'
import type { Kinds } from './pair.ts'
import type { ShownColumn } from './shown-column.ts'
import type { WireRow } from '../query/wire.ts'

const number = z.number().int()
const person = rowIdSchema
const name = z.string().max(80)
const words = z.string().max(2000)
const about = z.string().max(500)

/** What is done with one person, who is known by the id of their row. */
export const personRequestSchema = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('give role'), person, role: number, mayPassOn: z.boolean() }),
	z.object({ kind: z.literal('take role'), person, role: number }),
	z.object({ kind: z.literal('join team'), person, team: number }),
	z.object({ kind: z.literal('leave team'), person, team: number }),
	z.object({ kind: z.literal('invite'), person, words }),
	z.object({ kind: z.literal('keep people'), person, keeps: z.boolean() }),
	z.object({ kind: z.literal('suspend'), person }),
	z.object({ kind: z.literal('let back'), person }),
	z.object({ kind: z.literal('sign out'), person }),
	z.object({ kind: z.literal('take off second factor'), person }),
	z.object({
		kind: z.literal('share app'),
		person,
		app: number,
		role: number.nullable(),
		team: number.nullable(),
		tells: z.boolean(),
		words
	})
])

/** What is done with teams, roles, ways in and providers; and with somebody who is no person here yet. */
export const teamRequestSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('add person'),
		cells: cellChangesSchema,
		roles: z.array(number).max(100),
		teams: z.array(number).max(100),
		invited: z.boolean(),
		words
	}),
	z.object({ kind: z.literal('add team'), name }),
	z.object({ kind: z.literal('rename team'), team: number, name }),
	z.object({ kind: z.literal('remove team'), team: number }),
	z.object({ kind: z.literal('give team role'), team: number, role: number }),
	z.object({ kind: z.literal('take team role'), team: number, role: number }),
	z.object({ kind: z.literal('add role'), name, about }),
	z.object({
		kind: z.literal('change role'),
		role: number,
		name,
		about,
		includes: z.array(number).max(100),
		where: z.string().max(10_000)
	}),
	z.object({ kind: z.literal('remove role'), role: number }),
	z.object({ kind: z.literal('open as me'), column: number, open: z.boolean() }),
	z.object({
		kind: z.literal('open way'),
		app: number,
		way: z.enum(['domain', 'code', 'phrase', 'doorstep', 'visitors']),
		word: z.string().trim().max(200),
		role: number.nullable(),
		team: number.nullable(),
		uses: z.number().int().min(1).max(100_000).nullable(),
		/** The last day on which a code works. */
		lastDay: z.iso.date().nullable(),
		asks: z.string().trim().max(500),
		words
	}),
	z.object({ kind: z.literal('close way'), way: number }),
	z.object({ kind: z.literal('set proof'), app: number, proof: number, open: z.boolean() }),
	z.object({
		kind: z.literal('add provider'),
		name: z.string().trim().min(1, 'Give it the name that people know it by.').max(60),
		issuer: z.url('The address of a provider begins with https://.').max(300),
		clientId: z.string().trim().min(1, 'The provider gives a client number or name: write it here.').max(300),
		secret: z.string().trim().min(1, 'The provider gives a secret: write it here.').max(500)
	}),
	z.object({ kind: z.literal('remove provider'), provider: number }),
	z.object({ kind: z.literal('open passwords'), open: z.boolean() })
])

/** What stewards, and those who may pass a role on, do with people, teams and roles. */
export const peopleRequestSchema = z.union([personRequestSchema, teamRequestSchema])

export type PersonRequests = Kinds<typeof personRequestSchema>
export type TeamRequests = Kinds<
	typeof teamRequestSchema,
	/** The id of a person's row; the numbers of what was added. */
	{ 'add person': string; 'add team': number; 'add role': number; 'open way': number }
>

export interface PeopleSheet {
	readonly table: number
	readonly label: number
	readonly columns: readonly ShownColumn[]
	/** For stewards: the columns of people, and whether builders may write `me.` with each. */
	readonly asMe: readonly { readonly id: number; readonly name: string; readonly open: boolean }[]
	/** Columns that decide access: only stewards change them, and never their own. */
	readonly marked: readonly number[]
	readonly people: readonly ShownPerson[]
	readonly more: boolean
	readonly roles: readonly ShownRole[]
	readonly teams: readonly { id: number; name: string; members: readonly string[]; roles: readonly number[] }[]
	readonly isSteward: boolean
}

export interface ShownPerson {
	readonly row: WireRow
	readonly state: PersonState
	readonly roles: readonly HeldRole[]
	readonly teams: readonly number[]
	/** Epoch ms. */
	readonly lastIn: number | null
	readonly isMe: boolean
	/** Whether signing in asks for a code as well. */
	readonly hasFactor: boolean
	/** Whether they keep the list of people; null for who is no builder, and so cannot. */
	readonly keepsPeople: boolean | null
}

export type PersonState = 'active' | 'invited' | 'not invited' | 'suspended'

export interface ShownRole {
	readonly id: number
	readonly name: string
	readonly about: string
	readonly includes: readonly number[]
	readonly where: string
	/** How many people hold it by name or through a team. */
	readonly holders: number
	readonly lines: number
	/** Part of the program: neither changed nor removed. */
	readonly fixed: boolean
	/** Whether whoever reads this may give it to others. */
	readonly mayGrant: boolean
}

export interface HeldRole {
	readonly role: number
	/** Undefined where it was given by name; else the team, or the condition that gives it. */
	readonly through?: string
	readonly mayPassOn: boolean
}

export interface SharedApp {
	readonly id: number
	readonly name: string
	/** Roles whose lines reach a table that it shows, by number. */
	readonly roles: readonly number[]
	/** Who holds one of them: the id of their row, and by which. */
	readonly people: readonly { readonly row: string; readonly roles: readonly number[]; readonly builds: boolean }[]
}
