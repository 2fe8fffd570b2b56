/**
 * What stewards, and those who may pass a role on, do with people, teams and roles, kind by kind. Who may is decided where it
 * is done.
 */
import type { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import type { PersonRequests, personRequestSchema, TeamRequests, teamRequestSchema } from '$lib/core/requests/people.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { tryProvider, type SiteWithStandIn } from '../sign-in/outside-sign-in.ts'
import { findWeakness, hashPassword } from '../sign-in/passwords.ts'
import { handle, type Handlers } from './handlers.ts'

interface Context {
	readonly site: SiteWithStandIn
	readonly by: ByActor
	readonly isSteward: boolean
}

type AskedOfPerson = z.output<typeof personRequestSchema>
type AskedOfTeam = z.output<typeof teamRequestSchema>

/** Does one thing with a person or a team; an unknown person is `not_found`. */
export async function doWithPeople(asked: AskedOfPerson | AskedOfTeam, context: Context): Promise<unknown> {
	if (!('person' in asked)) return handle(TEAMS, asked, context)
	const person = await context.site.read('personNumber', { row: asked.person })
	if (person === null) throw new AppError('not_found', 'This person is not there.')
	return handle(PERSON, asked, { ...context, of: { person, ...context.by } })
}

interface OfPerson extends Context {
	/** The person's number, and who does it. */
	readonly of: ByActor & { readonly person: number }
}

const PERSON: Handlers<typeof personRequestSchema, PersonRequests, OfPerson> = {
	'give role': ({ role, mayPassOn }, { site, of }) => site.write('giveRole', { ...of, role, mayPassOn }),
	'take role': ({ role }, { site, of }) => site.write('takeRole', { ...of, role }),
	'join team': ({ team }, { site, of }) => site.write('joinTeam', { ...of, team }),
	'leave team': ({ team }, { site, of }) => site.write('leaveTeam', { ...of, team }),
	invite: ({ words }, { site, of }) => site.write('invite', { ...of, words }),
	'keep people': ({ keeps }, { site, of }) => site.write('keepPeople', { ...of, keeps }),
	suspend: (_asked, { site, of }) => site.write('suspend', of),
	'let back': (_asked, { site, of }) => site.write('letBack', of),
	'sign out': (_asked, { site, of }) => site.write('endSessionsOf', of),
	'take off second factor': (_asked, { site, of }) => site.write('takeOffSecondFactor', of),
	'share app': (asked, { site, of }) => site.write('shareApp', { ...asked, ...of })
}

const TEAMS: Handlers<typeof teamRequestSchema, TeamRequests, Context> = {
	'add person': (asked, { site, by }) => site.write('addPerson', { ...asked, ...by }),
	'add team': (asked, { site, by }) => site.write('addTeam', { ...asked, ...by }),
	'rename team': (asked, { site, by }) => site.write('renameTeam', { ...asked, ...by }),
	'remove team': (asked, { site, by }) => site.write('removeTeam', { ...asked, ...by }),
	'give team role': (asked, { site, by }) => site.write('giveTeamRole', { ...asked, ...by }),
	'take team role': (asked, { site, by }) => site.write('takeTeamRole', { ...asked, ...by }),
	'add role': (asked, { site, by }) => site.write('addRole', { ...asked, ...by }),
	'change role': (asked, { site, by }) => site.write('changeRole', { ...asked, ...by }),
	'remove role': (asked, { site, by }) => site.write('removeRole', { ...asked, ...by }),
	'open as me': (asked, { site, by }) => site.write('openAsMe', { ...asked, ...by }),
	'open way': openWay,
	'close way': ({ way }, { site, by }) => site.write('closeWay', { way, ...by }),
	'set proof': (asked, { site, by }) => site.write('setProof', { ...asked, ...by }),
	'add provider': addProvider,
	'remove provider': (asked, { site, by }) => site.write('removeProvider', { ...asked, ...by }),
	'open passwords': (asked, { site, by }) => site.write('openPasswords', { ...asked, ...by })
}

/** A provider is written down once it has answered. Only stewards have us ask one. */
async function addProvider(asked: OfTeam<'add provider'>, { site, by, isSteward }: Context): Promise<void> {
	if (!isSteward) throw new AppError('forbidden', 'Only stewards may do this.')
	const { name, clientId } = asked
	const issuer = asked.issuer.replace(/\/+$/, '')
	const sealedSecret = await tryProvider(site, { ...asked, issuer })
	await site.write('addProvider', { name, issuer, clientId, sealedSecret, ...by })
}

const DAY_MS = 86_400_000

async function openWay(asked: OfTeam<'open way'>, { site, by }: Context): Promise<number> {
	const { way: kind, uses: usesLeft, lastDay, word, app, role, team, asks, words } = asked
	const weakness = kind === 'phrase' ? findWeakness(word, []) : undefined
	if (weakness) throw new AppError('invalid', weakness)
	return site.write('addWay', {
		app,
		kind,
		role,
		team,
		usesLeft,
		endsAt: lastDay === null ? null : Date.parse(`${lastDay}T00:00:00Z`) + DAY_MS,
		asks,
		words,
		word: kind === 'phrase' ? await hashPassword(word) : word,
		...by
	})
}

type OfTeam<K> = Extract<AskedOfTeam, { kind: K }>
