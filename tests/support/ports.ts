/** A small workspace: ports, one of which some do not see, and the berths that lie in them. */
import { APP_FORMAT, appSchema, type AppDocument, type ScreenInput } from '$lib/core/app/document.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from './access-line.ts'
import { KEEPER, openScratch } from './scratch-store.ts'

export const NOW = Date.parse('2026-11-29T12:00:00Z')
export const [PORTS, NAME, DEBT] = [2, 20, 21]
export const [BERTHS, CODE, PORT] = [3, 30, 31]
const [CREW, BOSSES] = [10, 11]
export const [IMKE, BO] = [2, 3]

const line = (id: string, table: number, role: number, parts: Partial<LineEntry> = {}) =>
	accessLine({ id, table, role, verbs: ['see', 'add'], ...parts })

/** Imke does not see South, nor what any port owes; Bo sees all. */
export function openPorts(): Store {
	const store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [
			line('p', PORTS, CREW, { where: 'name <> "South"', columns: { kind: 'except', columns: [DEBT] } }),
			line('b', BERTHS, CREW),
			line('xp', PORTS, BOSSES),
			line('xb', BERTHS, BOSSES)
		],
		tables: [
			{
				...{ id: PORTS, name: 'ports', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: DEBT, name: 'debt', type: 'whole number' }
				]
			},
			{
				...{ id: BERTHS, name: 'berths', keepers: [KEEPER], label: CODE },
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: PORT, name: 'port', type: 'reference', to: PORTS, reverseName: 'berths' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES (1, 0, 0, 'North', 'north', 7), (2, 0, 0, 'South', 'south', 9);
		INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31) VALUES (1, 0, 0, 'N1', 'n1', 1), (2, 0, 0, 'N2', 'n2', 1), (3, 0, 0, 'S1', 's1', 2);
		INSERT INTO role_held (person, role) VALUES (2, ${CREW}), (3, ${BOSSES})`)
	return store
}

/** An app of one screen. */
export function documentOf(lines: ScreenInput['lines']): AppDocument {
	const none = { about: '', colour: 'sea' as const, routines: [], signoffs: [] }
	return appSchema.parse({ format: APP_FORMAT, name: 'Quay', screens: [{ id: 's', title: 'S', lines }], ...none })
}
