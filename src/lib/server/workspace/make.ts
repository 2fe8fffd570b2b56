/**
 * Makes a new workspace in an empty database: the people table, the roles that every workspace has, and one line that
 * lets whoever is signed in see people's names.
 */
import { WORKSPACE_FORMAT, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { BUILDER, EVERYONE, STEWARD } from '../people/system-roles.ts'
import type { Store } from '../store.ts'
import { saveWorkspace } from './save.ts'

export const PEOPLE = 1
export const PERSON_NAME = 1
export const PERSON_EMAIL = 2

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
