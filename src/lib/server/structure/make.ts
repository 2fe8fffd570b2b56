/**
 * Makes a new workspace in an empty database: the people table, the roles that every workspace has, and one line that
 * lets whoever is signed in see people's names. Its first steward comes in by a link that works once.
 */
import { AppError } from '$lib/core/app-error.ts'
import { textKey } from '$lib/core/text/key.ts'
import { putAccount } from '../rights/accounts.ts'
import { takeFirstLink } from '../credentials/one-time-links.ts'
import { writeHistory } from '../history/history.ts'
import { WORKSPACE_FORMAT, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { BUILDER, EVERYONE, STEWARD } from '../rights/system-roles.ts'
import type { Store } from '../store/store.ts'
import { saveWorkspace } from './save.ts'

export const PEOPLE = 1
export const PERSON_NAME = 1
export const PERSON_EMAIL = 2

/** The first version of an empty workspace: people, and the roles of the program. */
export function makeWorkspace(
	store: Store,
	{ name, timeZone, now }: { name: string; timeZone: string; now: number }
): void {
	const document: WorkspaceDocument = {
		format: WORKSPACE_FORMAT,
		name,
		timeZone,
		people: PEOPLE,
		tables: [
			{
				id: PEOPLE,
				name: 'People',
				keepers: [],
				label: PERSON_NAME,
				columns: [
					{ id: PERSON_NAME, name: 'Name', type: 'text', required: true },
					{ id: PERSON_EMAIL, name: 'Email', type: 'email', required: true, unique: true }
				]
			}
		],
		roles: [
			{ id: EVERYONE, name: 'Everyone', includes: [] },
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: STEWARD, name: 'Stewards', includes: [] }
		],
		lines: [
			{
				id: 'names',
				table: PEOPLE,
				role: EVERYONE,
				verbs: ['see'],
				where: '',
				columns: { kind: 'only', columns: [PERSON_NAME] }
			},
			{
				id: 'stewards',
				table: PEOPLE,
				role: STEWARD,
				verbs: ['see', 'add', 'change'],
				where: '',
				columns: { kind: 'all' }
			}
		]
	}
	saveWorkspace(store, document, { now, by: null })
}

export interface FirstSteward {
	readonly token: string
	readonly name: string
	readonly email: string
	readonly hash: string
	/** What the workspace is to be called. */
	readonly workspaceName: string
	readonly timeZone: string
	readonly now: number
}

/** The first steward names the workspace and comes in; the link is used up by it. */
export function startWorkspace(store: Store, first: FirstSteward): { person: number } {
	takeFirstLink(store, first)
	const { name, email, hash, workspaceName, timeZone, now } = first
	if (!isTimeZone(timeZone)) throw new AppError('invalid', `"${timeZone}" is no time zone that is known here.`)
	saveWorkspace(store, { ...store.workspace().document, name: workspaceName.trim(), timeZone }, { now, by: null })
	// Who also builds, until others do.
	const person = addFirstPerson(store, { name: name.trim(), email: email.trim(), roles: [STEWARD, BUILDER], now })
	putAccount(store, { person, hash })
	writeHistory(store, { at: now, person, through: 'first start', kind: 'start', table: null, row: null, body: {} })
	return { person }
}

const ADD_FIRST = `INSERT INTO t1 (made_at, changed_at, c1, c1k, c2, c2k) VALUES (@now, @now, @name, @nameKey, @email, @emailKey)`
const HOLD = `INSERT INTO role_held (person, role) VALUES (?, ?)`

/** Somebody must be there before anybody may add people. */
export function addFirstPerson(
	store: Store,
	{ name, email, roles, now }: { name: string; email: string; roles: readonly number[]; now: number }
): number {
	const keys = { nameKey: textKey(name), emailKey: textKey(email) }
	const person = Number(store.prepare(ADD_FIRST).run({ name, email, now, ...keys }).lastInsertRowid)
	for (const role of roles) store.prepare(HOLD).run(person, role)
	return person
}

/** Whether there is a time zone of that name. */
export function isTimeZone(name: string): boolean {
	try {
		new Intl.DateTimeFormat('en', { timeZone: name })
		return true
	} catch {
		return false
	}
}
