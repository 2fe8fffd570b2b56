/**
 * Who holds what: roles by name, through teams and by condition; who may give them; columns that decide access; links that
 * let in once; and that somebody is always left to look after the workspace.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import { decidingColumns } from '$lib/core/access/deciding.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { addSession, describePerson, findSession, noteUse, putAccount } from '$lib/server/rights/accounts.ts'
import { giveRole, takeRole } from '$lib/server/people/grants.ts'
import { endOtherSessions, listSessions } from '$lib/server/credentials/own-account.ts'
import {
	askNewPassword,
	findOneTimeLink,
	invite,
	makeOneTimeLink,
	useOneTimeLink
} from '$lib/server/credentials/one-time-links.ts'
import { addPerson, letBack, suspend } from '$lib/server/people/people-changes.ts'
import { readPeople } from '$lib/server/people/people-sheet.ts'
import { addRole, changeRole, removeRole } from '$lib/server/people/roles.ts'
import { BUILDER, STEWARD } from '$lib/server/rights/system-roles.ts'
import { addTeam, giveTeamRole, joinTeam, leaveTeam, removeTeam, takeTeamRole } from '$lib/server/people/teams.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { countRows, readRows } from '$lib/server/rows/read.ts'
import { keepPeople } from '$lib/server/structure/change-columns.ts'
import { startWorkspace } from '$lib/server/structure/make.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const DAY = 86_400_000
const BERTHS = 2
const [NAME, GRADE, SITE] = [10, 3, 4]
const [DIVERS, CLERKS, SENIORS, LEADS] = [100, 101, 102, 103]
const [IMKE, CORRIE, OSRIC] = [2, 3, 4]
const steward = { actor: { person: KEEPER }, now: NOW }

const lines: LineEntry[] = [
	{ id: 'd', table: BERTHS, role: DIVERS, verbs: ['see'], where: 'Name = me.site', columns: { kind: 'all' } },
	{ id: 's', table: BERTHS, role: SENIORS, verbs: ['see'], where: '', columns: { kind: 'all' } },
	{
		id: 'p',
		table: PEOPLE_TABLE,
		role: CLERKS,
		verbs: ['see', 'add', 'change', 'remove'],
		where: '',
		columns: { kind: 'all' }
	}
]

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		peopleColumns: [
			{ id: GRADE, name: 'grade', type: 'text' },
			{ id: SITE, name: 'site', type: 'text' }
		],
		tables: [
			{
				id: BERTHS,
				name: 'Berths',
				keepers: [KEEPER],
				label: NAME,
				columns: [{ id: NAME, name: 'Name', type: 'text' }]
			}
		],
		roles: [
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: STEWARD, name: 'Stewards', includes: [] },
			{ id: DIVERS, name: 'Divers', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] },
			{ id: SENIORS, name: 'Seniors', includes: [], where: 'grade = "senior"' },
			{ id: LEADS, name: 'Leads', includes: [DIVERS] }
		],
		lines
	})
	for (const [i, name] of ['Imke', 'Corrie', 'Osric'].entries())
		store.db
			.prepare('INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c4, c4k) VALUES (?, 0, 0, ?, ?, ?, ?, ?, ?)')
			.run(
				i + 2,
				name,
				name.toLowerCase(),
				`${name.toLowerCase()}@varrow.example`,
				`${name.toLowerCase()}@varrow.example`,
				'Ness Hythe',
				'ness hythe'
			)
	putAccount(store, { person: KEEPER, hash: 'x' })
	for (const name of ['Ness Hythe', 'Gull Stair'])
		changeRows(store, [{ kind: 'add', table: BERTHS, cells: [{ column: NAME, value: name }] }], {
			...steward,
			through: 'grid' as const
		})
})

/** Each call as the writer makes it: undone whole where it is refused. */
function whole<T>(work: () => T): T {
	return store.db.transaction(work)()
}

const seen = (person: number) => countRows(store, { person }, { table: BERTHS, limit: 10 }, NOW)
const give = (person: number, role: number, by = KEEPER, mayPassOn = false) =>
	whole(() => giveRole(store, { person, role, mayPassOn, actor: { person: by }, now: NOW }))
const take = (person: number, role: number, by = KEEPER) =>
	whole(() => takeRole(store, { person, role, actor: { person: by }, now: NOW }))
const rowOf = (person: number) => store.ids.toId(PEOPLE_TABLE, person)

function change(by: number, person: number, cells: Record<number, CellChange['value']>) {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	return whole(() =>
		changeRows(store, [{ kind: 'change', table: PEOPLE_TABLE, row: rowOf(person), cells: list }], {
			actor: { person: by },
			now: NOW,
			through: 'grid' as const
		})
	)
}

describe('a role is held', () => {
	test('by name, and what it includes with it', () => {
		expect(seen(IMKE)).toBe(0)
		give(IMKE, LEADS)
		expect(seen(IMKE)).toBe(1)
		take(IMKE, LEADS)
		expect(seen(IMKE)).toBe(0)
	})

	test('through a team, for as long as one is in it and it has the role', () => {
		const team = addTeam(store, { name: 'Boat crew', ...steward })
		giveTeamRole(store, { team, role: DIVERS, ...steward })
		joinTeam(store, { team, person: IMKE, ...steward })
		expect(seen(IMKE)).toBe(1)
		expect(seen(CORRIE)).toBe(0)
		takeTeamRole(store, { team, role: DIVERS, ...steward })
		expect(seen(IMKE)).toBe(0)
		giveTeamRole(store, { team, role: DIVERS, ...steward })
		leaveTeam(store, { team, person: IMKE, ...steward })
		expect(seen(IMKE)).toBe(0)
		joinTeam(store, { team, person: IMKE, ...steward })
		removeTeam(store, { team, ...steward })
		expect(seen(IMKE)).toBe(0)
	})

	test('by whoever fits its condition, from the moment their row does', () => {
		expect(seen(IMKE)).toBe(0)
		change(KEEPER, IMKE, { [GRADE]: 'Senior' })
		expect(seen(IMKE)).toBe(2)
		expect(describePerson(store, IMKE)?.roleNames).toEqual(['Seniors'])
		change(KEEPER, IMKE, { [GRADE]: null })
		expect(seen(IMKE)).toBe(0)
	})

	test('not by somebody who is suspended, whatever they hold or keep', () => {
		give(IMKE, DIVERS)
		whole(() => suspend(store, { person: IMKE, ...steward }))
		expect(seen(IMKE)).toBe(0)
		expect(readRows(store, { person: IMKE }, { table: PEOPLE_TABLE }, NOW).rows).toEqual([])
		letBack(store, { person: IMKE, ...steward })
		expect(seen(IMKE)).toBe(1)
	})
})

describe('who gives roles', () => {
	test.each([
		['somebody who holds it but may not pass it on', IMKE, CORRIE, 'You may not pass "Divers" on'],
		['somebody who holds nothing', OSRIC, CORRIE, 'You may not pass "Divers" on'],
		['a steward, to themselves', KEEPER, KEEPER, 'Nobody changes their own roles']
	])('is not %s', (_who, by, to, said) => {
		give(IMKE, DIVERS)
		expect(() => give(to, DIVERS, by)).toThrow(said)
		expect(seen(CORRIE)).toBe(0)
	})

	test('is who holds it and may pass it on, but no other role, and not to themselves', () => {
		give(IMKE, DIVERS, KEEPER, true)
		give(CORRIE, DIVERS, IMKE)
		expect(seen(CORRIE)).toBe(1)
		expect(() => give(OSRIC, SENIORS, IMKE)).toThrow('You may not pass "Seniors" on')
		expect(() => give(IMKE, LEADS, IMKE)).toThrow('Nobody changes their own roles')
		expect(() => give(OSRIC, DIVERS, CORRIE)).toThrow('You may not pass "Divers" on')
		take(CORRIE, DIVERS, IMKE)
		expect(seen(CORRIE)).toBe(0)
	})

	test('a builder makes a role, holds it, passes it on; and makes no steward of anybody', () => {
		give(OSRIC, BUILDER)
		const role = whole(() => addRole(store, { name: 'Crane drivers', actor: { person: OSRIC }, now: NOW }))
		give(IMKE, role, OSRIC)
		expect(describePerson(store, IMKE)?.roleNames).toEqual(['Crane drivers'])
		expect(() => give(IMKE, STEWARD, OSRIC)).toThrow('You may not pass "Stewards" on')
		const words = { name: 'Crane drivers', includes: [STEWARD], actor: { person: OSRIC }, now: NOW }
		expect(() => changeRole(store, { role, ...words })).toThrow('Only stewards')
		expect(() => whole(() => addRole(store, { name: 'crane DRIVERS', ...steward }))).toThrow('already')
		expect(() => whole(() => addRole(store, { name: 'x', actor: { person: IMKE }, now: NOW }))).toThrow('Only builders')
	})

	test('nobody puts themselves into a team, or gives a team of theirs a role', () => {
		give(IMKE, STEWARD)
		const team = addTeam(store, { name: 'Boat crew', ...steward })
		const own = { actor: { person: IMKE }, now: NOW, team }
		expect(() => joinTeam(store, { person: IMKE, ...own })).toThrow('Nobody changes their own teams')
		joinTeam(store, { team, person: IMKE, ...steward })
		expect(() => giveTeamRole(store, { role: DIVERS, ...own })).toThrow('another steward')
		expect(() => addTeam(store, { name: 'boat CREW', ...steward })).toThrow('already')
	})
})

describe('a role that is changed', () => {
	test('lets nobody in by a condition who is to be named by hand', () => {
		const words = { name: 'Leads', includes: [STEWARD], where: 'site = "Ness Hythe"' }
		expect(() => whole(() => changeRole(store, { role: LEADS, ...words, ...steward }))).toThrow('named by hand')
	})

	test('may not depend on the day, and says what is wrong with its condition', () => {
		const set = (where: string) => () =>
			whole(() => changeRole(store, { role: LEADS, name: 'Leads', where, ...steward }))
		expect(set('YEAR(TODAY()) = 2026')).toThrow('may not change with the day')
		expect(set('graed = "senior"')).toThrow('Did you mean')
		expect(set('me.grade = "senior"')).toThrow('"me" cannot be used here')
	})

	test('goes only when nobody holds it and nothing speaks of it', () => {
		const remove = (role: number) => whole(() => removeRole(store, { role, ...steward }))
		expect(() => remove(DIVERS)).toThrow('Lines of access still let Divers do something')
		give(IMKE, LEADS)
		expect(() => remove(LEADS)).toThrow('still hold Leads')
		take(IMKE, LEADS)
		remove(LEADS)
		expect(store.workspace().roles.some((role) => role.id === LEADS)).toBe(false)
		expect(() => remove(STEWARD)).toThrow('part of the program')
	})
})

describe('columns that decide access', () => {
	test('are those that lines and roles read, and the address', () => {
		const { lines: all, roles, marked } = store.workspace()
		expect(decidingColumns(all, roles).map(({ column }) => column.name)).toEqual(['Name', 'site', 'grade'])
		expect([...marked].sort()).toEqual([2, GRADE, SITE])
	})

	test('are changed by stewards only, and never one’s own', () => {
		give(CORRIE, CLERKS)
		change(CORRIE, IMKE, { 1: 'Imke Dahl' })
		expect(() => change(CORRIE, IMKE, { [SITE]: 'Gull Stair' })).toThrow('site decides what people may see')
		expect(() => change(CORRIE, IMKE, { 2: 'corrie+imke@varrow.example' })).toThrow('email decides')
		expect(() => change(CORRIE, CORRIE, { [GRADE]: 'senior' })).toThrow('somebody else must change it')
		expect(() => change(KEEPER, KEEPER, { [GRADE]: 'senior' })).toThrow('somebody else must change it')
		change(KEEPER, IMKE, { [SITE]: 'Gull Stair' })
		const add = (cells: { column: number; value: string }[]) =>
			whole(() =>
				changeRows(store, [{ kind: 'add', table: PEOPLE_TABLE, cells }], {
					actor: { person: CORRIE },
					now: NOW,
					through: 'grid' as const
				})
			)
		expect(() => add([{ column: GRADE, value: 'senior' }])).toThrow('only a steward changes it')
	})
})

test('somebody who was removed comes back, with what they held, by a steward alone', () => {
	give(CORRIE, CLERKS)
	give(IMKE, DIVERS)
	const act = (by: number, kind: 'remove' | 'restore') =>
		whole(() =>
			changeRows(store, [{ kind, table: PEOPLE_TABLE, row: rowOf(IMKE) }], {
				actor: { person: by },
				now: NOW,
				through: 'grid' as const
			})
		)
	act(CORRIE, 'remove')
	expect(seen(IMKE)).toBe(0)
	expect(() => act(CORRIE, 'restore')).toThrow('only a steward changes it')
	act(KEEPER, 'restore')
	expect(seen(IMKE)).toBe(1)
})

describe('the last steward', () => {
	test.each([
		['is not suspended', () => suspend(store, { person: KEEPER, actor: { person: IMKE }, now: NOW })],
		[
			'does not lose the role',
			() => takeRole(store, { person: KEEPER, role: STEWARD, actor: { person: IMKE }, now: NOW })
		],
		[
			'is not removed',
			() =>
				changeRows(store, [{ kind: 'remove', table: PEOPLE_TABLE, row: rowOf(KEEPER) }], {
					actor: { person: CORRIE },
					now: NOW,
					through: 'grid' as const
				})
		]
	])('%s', (_what, work) => {
		// Imke is a steward by name, but nobody ever let her in: she cannot sign in.
		give(IMKE, STEWARD)
		give(CORRIE, CLERKS)
		expect(() => whole(work)).toThrow('the last steward who can sign in')
		expect(describePerson(store, KEEPER)?.isSteward).toBe(true)
		putAccount(store, { person: IMKE, hash: 'x' })
		whole(work)
		expect(describePerson(store, KEEPER)?.isSteward ?? false).toBe(false)
	})
})

describe('links that let in', () => {
	const linkOf = (): string => {
		const link = store.db.prepare('SELECT link FROM message ORDER BY id DESC LIMIT 1').pluck().get() as string
		return link.replace('/join/', '')
	}
	const isOpen = (token: string, now = NOW) => findOneTimeLink(store, { token, now }) !== null

	test('an invitation works once, for seven days, and the newest alone', () => {
		invite(store, { person: IMKE, words: 'Welcome.', ...steward })
		const first = linkOf()
		expect(findOneTimeLink(store, { token: first, now: NOW })).toEqual({
			kind: 'invitation',
			name: 'Imke',
			email: 'imke@varrow.example'
		})
		expect(isOpen(first, NOW + 8 * DAY)).toBe(false)
		invite(store, { person: IMKE, words: '', ...steward })
		expect(isOpen(first)).toBe(false)
		const second = linkOf()
		expect(useOneTimeLink(store, { token: second, hash: 'h', now: NOW })).toEqual({ person: IMKE })
		expect(() => useOneTimeLink(store, { token: second, hash: 'other', now: NOW })).toThrow('has been used')
		expect(store.db.prepare('SELECT password_hash FROM account WHERE person = ?').pluck().get(IMKE)).toBe('h')
	})

	test('only the hash of a token is kept with the pass', () => {
		const token = makeOneTimeLink(store, { kind: 'invitation', person: IMKE, by: KEEPER, now: NOW })
		expect(JSON.stringify(store.db.prepare('SELECT * FROM pass').all())).not.toContain(token)
	})

	test('a forgotten password is asked by who has an account, a few times an hour; others are told nothing', () => {
		const count = () => Number(store.db.prepare('SELECT count(*) FROM message').pluck().get())
		askNewPassword(store, { email: 'nobody@varrow.example', now: NOW })
		askNewPassword(store, { email: 'imke@varrow.example', now: NOW })
		expect(count()).toBe(0)
		putAccount(store, { person: IMKE, hash: 'old' })
		for (let i = 0; i < 5; i++) askNewPassword(store, { email: 'IMKE@varrow.example', now: NOW + i })
		expect(count()).toBe(3)
		addSession(store, { tokenHash: 's', person: IMKE, now: NOW, expiresAt: NOW + DAY, through: 'sign-in', agent: '' })
		const token = linkOf()
		expect(isOpen(token, NOW + 3 * 3_600_000)).toBe(false)
		useOneTimeLink(store, { token, hash: 'new', now: NOW })
		expect(findSession(store, { tokenHash: 's', now: NOW })).toBeUndefined()
	})

	test('whoever is suspended is not let in by any of them, nor by a session', () => {
		putAccount(store, { person: IMKE, hash: 'old' })
		invite(store, { person: IMKE, words: '', ...steward })
		const token = linkOf()
		addSession(store, { tokenHash: 's', person: IMKE, now: NOW, expiresAt: NOW + DAY, through: 'sign-in', agent: '' })
		whole(() => suspend(store, { person: IMKE, ...steward }))
		expect(isOpen(token)).toBe(false)
		expect(findSession(store, { tokenHash: 's', now: NOW })).toBeUndefined()
		const enter = {
			tokenHash: 't',
			person: IMKE,
			now: NOW,
			expiresAt: NOW + DAY,
			through: 'sign-in' as const,
			agent: ''
		}
		expect(() => addSession(store, enter)).toThrow('suspended')
		expect(() => invite(store, { person: IMKE, words: '', ...steward })).toThrow('Let them back in first')
	})

	test('the first steward’s opens a workspace, once', () => {
		const token = makeOneTimeLink(store, { kind: 'first steward', person: 0, by: null, now: NOW })
		const first = { name: 'Ailith', email: 'ailith@varrow.example', hash: 'h', workspaceName: 'Trust', now: NOW }
		expect(() => useOneTimeLink(store, { token, hash: 'h', now: NOW })).toThrow('has been used')
		const begin = (timeZone: string) => whole(() => startWorkspace(store, { token, timeZone, ...first }))
		expect(() => begin('Atlantis/Quay')).toThrow('no time zone')
		const { person } = begin('Europe/London')
		expect(describePerson(store, person)).toMatchObject({ isSteward: true, isBuilder: true, name: 'Ailith' })
		expect(store.workspace().name).toBe('Trust')
		expect(() => begin('Europe/London')).toThrow('has been used')
	})
})

describe('people', () => {
	const cells = [
		{ column: 1, value: 'Signe' },
		{ column: 2, value: 'signe@varrow.example' },
		{ column: SITE, value: 'Gull Stair' }
	]

	test('are added with roles, teams and an invitation, or not at all', () => {
		const team = addTeam(store, { name: 'Boat crew', ...steward })
		const add = (roles: number[]) =>
			whole(() => addPerson(store, { cells, roles, teams: [team], invited: true, words: '', ...steward }))
		expect(() => add([DIVERS, 999])).toThrow('This role is not there')
		expect(readPeople(store, steward).people.map((each) => each.row.cells['c1'])).not.toContain('Signe')
		const row = add([DIVERS])
		const shown = readPeople(store, steward).people.find((each) => each.row.id === row)
		expect(shown).toMatchObject({ state: 'invited', teams: [team], roles: [{ role: DIVERS, mayPassOn: false }] })
		expect(() => add([DIVERS])).toThrow('another row has this value already')
	})

	test('are told of only to those who look after them', () => {
		expect(() => readPeople(store, { actor: { person: IMKE }, now: NOW })).toThrow('looked after by stewards')
		give(IMKE, DIVERS, KEEPER, true)
		const sheet = readPeople(store, { actor: { person: IMKE }, now: NOW })
		expect(sheet.roles.filter((role) => role.mayGrant).map((role) => role.name)).toEqual(['Divers'])
		// No line lets her see people's rows: she is shown none.
		expect(sheet.people).toEqual([])
	})

	test('are signed out by a session that lies idle, and not by one in use', () => {
		const DAY = 86_400_000
		const session = {
			tokenHash: 'idle',
			person: IMKE,
			expiresAt: NOW + 7 * DAY,
			through: 'sign-in' as const,
			agent: ''
		}
		addSession(store, { ...session, now: NOW })
		const at = (now: number) => findSession(store, { tokenHash: 'idle', now })
		expect(at(NOW + DAY)).toMatchObject({ person: IMKE, useIsDue: true })
		expect(at(NOW + 2 * DAY + 1)).toBeUndefined()
		noteUse(store, { tokenHash: 'idle', now: NOW + DAY })
		expect(at(NOW + DAY)?.useIsDue).toBe(false)
		expect(at(NOW + 2 * DAY + 1)?.person).toBe(IMKE)
		noteUse(store, { tokenHash: 'idle', now: NOW + 6.9 * DAY })
		expect(at(NOW + 7 * DAY)).toBeUndefined()
	})

	test('end their other sessions, and see no token in the list', () => {
		for (const tokenHash of ['aaaaaaaaaaaaaaaa1', 'bbbbbbbbbbbbbbbb2'])
			addSession(store, {
				tokenHash,
				person: IMKE,
				now: NOW,
				expiresAt: NOW + DAY,
				through: 'sign-in' as const,
				agent: 'Firefox'
			})
		const list = () => listSessions(store, { person: IMKE, tokenHash: 'aaaaaaaaaaaaaaaa1', now: NOW })
		expect(list().map((each) => [each.id, each.isThis])).toContainEqual(['aaaaaaaaaaaaaaaa', true])
		expect(JSON.stringify(list())).not.toContain('aaaaaaaaaaaaaaaa1')
		endOtherSessions(store, { person: IMKE, tokenHash: 'aaaaaaaaaaaaaaaa1', now: NOW })
		expect(list()).toHaveLength(1)
	})
})

describe('who keeps the list of people', () => {
	const keep = (person: number, keeps: boolean, actor = KEEPER) =>
		keepPeople(store, { person, keeps, actor: { person: actor }, now: NOW })
	const keepers = () => store.workspace().catalogue.people.keepers

	test('a steward says so, of builders only; whoever keeps it sees all of it, and nobody else is changed', () => {
		store.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(IMKE, BUILDER)
		const sees = () => readRows(store, { person: IMKE }, { table: PEOPLE_TABLE }, NOW).rows.length
		expect(sees()).toBe(0)
		keep(IMKE, true)
		expect(keepers()).toEqual([KEEPER, IMKE])
		expect(sees()).toBe(4)
		keep(IMKE, true)
		expect(keepers()).toEqual([KEEPER, IMKE])
		keep(IMKE, false)
		expect([keepers(), sees()]).toEqual([[KEEPER], 0])
		expect(() => keep(CORRIE, true)).toThrow('is no builder')
		expect(() => keep(IMKE, true, IMKE)).toThrow('Only stewards')
	})

	test('nobody need keep it', () => {
		keep(KEEPER, false)
		expect(keepers()).toEqual([])
		expect(() => keep(KEEPER, true)).toThrow('is no builder')
	})
})
