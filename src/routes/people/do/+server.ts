import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { cellChangesSchema, rowIdSchema } from '$lib/server/web/cell-schema.ts'
import { tryProvider } from '$lib/server/sign-in/outside-sign-in.ts'
import { findWeakness, hashPassword } from '$lib/server/sign-in/passwords.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

const number = z.number().int()
const person = rowIdSchema
const name = z.string().max(80)
const words = z.string().max(2000)
const roleWords = {
	name,
	about: z.string().max(500),
	includes: z.array(number).max(100),
	where: z.string().max(10_000)
}

const doSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('add person'),
		cells: cellChangesSchema,
		roles: z.array(number).max(100),
		teams: z.array(number).max(100),
		invited: z.boolean(),
		words
	}),
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
	z.object({ kind: z.literal('add team'), name }),
	z.object({ kind: z.literal('rename team'), team: number, name }),
	z.object({ kind: z.literal('remove team'), team: number }),
	z.object({ kind: z.literal('give team role'), team: number, role: number }),
	z.object({ kind: z.literal('take team role'), team: number, role: number }),
	z.object({ kind: z.literal('add role'), name, about: z.string().max(500) }),
	z.object({ kind: z.literal('change role'), role: number, ...roleWords }),
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
	z.object({ kind: z.literal('open passwords'), open: z.boolean() }),
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

type Asked = z.infer<typeof doSchema>

/** What stewards, and those who may pass a role on, do with people, teams and roles. Who may is decided where it is done. */
export function POST({ locals, request }) {
	return asJson(async () => act(locals, await readBody(request, doSchema)))
}

async function act(locals: App.Locals, asked: Asked): Promise<unknown> {
	const { host, now } = locals
	const by = { actor: getNamedActor(locals), now }
	if (!('person' in asked)) return actOnTeamOrRole(locals, asked)
	const number = await host.read('personNumber', { row: asked.person })
	if (number === null) throw new AppError('not_found', 'This person is not there.')
	const of = { person: number, ...by }
	switch (asked.kind) {
		case 'give role':
			return host.write('giveRole', { ...of, role: asked.role, mayPassOn: asked.mayPassOn })
		case 'take role':
			return host.write('takeRole', { ...of, role: asked.role })
		case 'join team':
			return host.write('joinTeam', { ...of, team: asked.team })
		case 'leave team':
			return host.write('leaveTeam', { ...of, team: asked.team })
		case 'invite':
			return host.write('invite', { ...of, words: asked.words })
		case 'keep people':
			return host.write('keepPeople', { ...of, keeps: asked.keeps })
		case 'suspend':
			return host.write('suspend', of)
		case 'let back':
			return host.write('letBack', of)
		case 'sign out':
			return host.write('endSessionsOf', of)
		case 'share app':
			return host.write('shareApp', { ...asked, ...of })
		case 'take off second factor':
			return host.write('takeOffSecondFactor', of)
	}
}

function actOnTeamOrRole(locals: App.Locals, asked: Exclude<Asked, { person: string }>): Promise<unknown> {
	const { host, now } = locals
	const by = { actor: getNamedActor(locals), now }
	switch (asked.kind) {
		case 'add person':
			return host.write('addPerson', { ...asked, ...by })
		case 'add team':
			return host.write('addTeam', { ...asked, ...by })
		case 'rename team':
			return host.write('renameTeam', { ...asked, ...by })
		case 'remove team':
			return host.write('removeTeam', { ...asked, ...by })
		case 'give team role':
			return host.write('giveTeamRole', { ...asked, ...by })
		case 'take team role':
			return host.write('takeTeamRole', { ...asked, ...by })
		case 'add role':
			return host.write('addRole', { ...asked, ...by })
		case 'change role':
			return host.write('changeRole', { ...asked, ...by })
		case 'remove role':
			return host.write('removeRole', { ...asked, ...by })
		case 'open as me':
			return host.write('openAsMe', { ...asked, ...by })
		case 'open way':
			return openWay(locals, asked)
		case 'close way':
			return host.write('closeWay', { way: asked.way, ...by })
		case 'set proof':
			return host.write('setProof', { ...asked, ...by })
		case 'add provider':
			return addProvider(locals, asked)
		case 'remove provider':
			return host.write('removeProvider', { ...asked, ...by })
		case 'open passwords':
			return host.write('openPasswords', { ...asked, ...by })
	}
}

/** A provider is written down once it has answered. Only stewards have us ask one. */
async function addProvider(locals: App.Locals, asked: Extract<Asked, { kind: 'add provider' }>): Promise<void> {
	const { host, now, user } = locals
	if (!user?.isSteward) throw new AppError('forbidden', 'Only stewards may do this.')
	const { name, clientId } = asked
	const issuer = asked.issuer.replace(/\/+$/, '')
	const sealedSecret = await tryProvider(host, { ...asked, issuer })
	await host.write('addProvider', { name, issuer, clientId, sealedSecret, actor: getNamedActor(locals), now })
}

const DAY_MS = 86_400_000

async function openWay(locals: App.Locals, asked: Extract<Asked, { kind: 'open way' }>): Promise<number> {
	const { way: kind, uses: usesLeft, lastDay, word, app, role, team, asks, words } = asked
	const weakness = kind === 'phrase' ? findWeakness(word, []) : undefined
	if (weakness) throw new AppError('invalid', weakness)
	return locals.host.write('addWay', {
		app,
		kind,
		role,
		team,
		usesLeft,
		endsAt: lastDay === null ? null : Date.parse(`${lastDay}T00:00:00Z`) + DAY_MS,
		asks,
		words,
		word: kind === 'phrase' ? await hashPassword(word) : word,
		actor: getNamedActor(locals),
		now: locals.now
	})
}
