/** People first: everything else in the demo is theirs to see, or not. */
import type { ColumnEntry } from '../src/lib/core/workspace/document.ts'
import { giveRole } from '../src/lib/server/people/grants.ts'
import { addTeam, giveTeamRole, joinTeam } from '../src/lib/server/people/teams.ts'
import { changeRows } from '../src/lib/server/rows/change.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import {
	addFirstPerson,
	makeWorkspace,
	PEOPLE as PEOPLE_TABLE,
	PERSON_EMAIL,
	PERSON_NAME
} from '../src/lib/server/structure/make.ts'
import { openAsMe } from '../src/lib/server/people/open-as-me.ts'
import { saveWorkspace } from '../src/lib/server/structure/save.ts'
import { addTable } from '../src/lib/server/structure/tables.ts'
import { emailOf, HARBOURS, PEOPLE } from './people.ts'
import { add, columnsOf } from './rows.ts'
import * as demo from './tables.ts'

export interface World {
	/** Numbers of people by name. */
	readonly people: ReadonlyMap<string, number>
	readonly harbours: number
	/** Ids of harbours by name. */
	readonly harbourIds: ReadonlyMap<string, string>
	readonly builder: number
}

/** The trust's people with their roles and teams, and its harbours. */
export function makePeople(store: Store, now: number): World {
	makeWorkspace(store, { name: 'Varrow Sound Harbour Trust', timeZone: 'Europe/London', now })
	store.db.prepare(`INSERT INTO meta (key, value) VALUES ('demo', 'yes'), ('workspace id', 'varrow')`).run()
	const strangers = JSON.stringify(demo.STRANGERS)
	store.db.prepare(`INSERT INTO meta (key, value) VALUES ('stand-in strangers', ?)`).run(strangers)
	// The stand-in for a provider of sign-in: it keeps its client and secret to itself.
	store.db
		.prepare(
			`INSERT INTO provider (name, issuer, client_id, sealed_secret, made_at) VALUES ('Quay Pass', '', '', '', ?)`
		)
		.run(now)
	const people = new Map<string, number>()
	const first = { name: 'Ailith Brand', email: emailOf('Ailith Brand'), roles: [demo.ROLE_IDS.Stewards], now }
	const steward = addFirstPerson(store, first)
	people.set('Ailith Brand', steward)
	for (const person of PEOPLE) {
		if (people.has(person.name)) continue
		const id = add(
			store,
			steward,
			PEOPLE_TABLE,
			{ [PERSON_NAME]: person.name, [PERSON_EMAIL]: emailOf(person.name) },
			now
		)
		people.set(person.name, store.ids.fromId(PEOPLE_TABLE, id) ?? 0)
	}
	const builder = people.get('Saskia Holm') ?? 0
	const document = store.workspace().document
	saveWorkspace(store, { ...document, roles: [...document.roles, ...demo.DEMO_ROLES] }, { now, by: builder })
	giveRoles(store, people, { steward, now })
	return { people, builder, ...makeHarbours(store, people, builder, now) }
}

/** By the steward, by name; the finance office holds its role as a team. */
function giveRoles(
	store: Store,
	people: ReadonlyMap<string, number>,
	{ steward, now }: { steward: number; now: number }
): void {
	const by = { actor: { person: steward }, now }
	const team = addTeam(store, { name: 'Finance office', ...by })
	giveTeamRole(store, { team, role: demo.ROLE_IDS.Finance, ...by })
	for (const { name, roles } of PEOPLE) {
		const person = people.get(name) ?? 0
		for (const role of roles) {
			if (role === 'Finance') joinTeam(store, { team, person, ...by })
			else if (person !== steward)
				giveRole(store, { person, role: demo.ROLE_IDS[role], mayPassOn: role === 'Harbour masters', ...by })
		}
	}
}

function makeHarbours(store: Store, people: ReadonlyMap<string, number>, builder: number, now: number) {
	const actor = { person: builder }
	const harbours = addTable(store, { name: 'Harbours', columns: demo.HARBOUR_COLUMNS, actor, now })
	const column = columnsOf(store, harbours)
	const harbourIds = new Map<string, string>()
	for (const { name, master, controller } of HARBOURS) {
		const person = (who: string) => ({ id: store.ids.toId(PEOPLE_TABLE, people.get(who) ?? 0) })
		harbourIds.set(
			name,
			add(
				store,
				builder,
				harbours,
				{ [column('Name')]: name, [column('Master')]: person(master), [column('Controller')]: person(controller) },
				now
			)
		)
	}
	givePeopleHarbours(store, { people, harbours, harbourIds, now })
	return { harbours, harbourIds }
}

function givePeopleHarbours(
	store: Store,
	given: { people: ReadonlyMap<string, number>; harbours: number; harbourIds: ReadonlyMap<string, string>; now: number }
): void {
	const { document } = store.workspace()
	const column: ColumnEntry = { id: 3, name: 'Harbour', type: 'reference', to: given.harbours, reverseName: 'people' }
	const tables = document.tables.map((table) =>
		table.id === PEOPLE_TABLE ? { ...table, columns: [...table.columns, column] } : table
	)
	saveWorkspace(store, { ...document, tables }, { now: given.now, by: null })
	openColumnsToBuilders(store, given)
	const steward = given.people.get('Ailith Brand') ?? 0
	const lines = demo.harbourLines().map((line, i) => ({ ...line, id: `harbours ${i}`, table: given.harbours }))
	saveWorkspace(
		store,
		{ ...store.workspace().document, lines: [...document.lines, ...lines] },
		{ now: given.now, by: null }
	)
	for (const { name, harbour } of PEOPLE) {
		if (harbour === null) continue
		const row = store.ids.toId(PEOPLE_TABLE, given.people.get(name) ?? 0)
		const cells = [{ column: 3, value: { id: given.harbourIds.get(harbour) ?? '' } }]
		changeRows(store, [{ kind: 'change', table: PEOPLE_TABLE, row, cells }], {
			actor: { person: steward },
			now: given.now,
			through: 'demo'
		})
	}
}

/** Builders write lines by whose harbour, or whose address, though they see neither of everybody. */
function openColumnsToBuilders(
	store: Store,
	{ people, now }: { people: ReadonlyMap<string, number>; now: number }
): void {
	const actor = { person: people.get('Ailith Brand') ?? 0 }
	const { columns } = store.workspace().catalogue.people
	for (const { id, name } of columns) if (name !== 'Name') openAsMe(store, { column: id, open: true, actor, now })
}
