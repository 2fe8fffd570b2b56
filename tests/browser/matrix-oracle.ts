/** Who may see which rows of the demo: a calculation of its own, by hand-written SQL over the raw database. */
import Database from 'better-sqlite3'
import type { DemoPerson } from '../../demo/people.ts'
import { FILE } from './asking.ts'

export interface Facts {
	readonly moorings: readonly { code: string; harbour: string; arrears: number; phone: string | null }[]
	readonly inspections: readonly { title: string; harbour: string }[]
	readonly requests: readonly { title: string; harbour: string; decider: string }[]
	readonly tables: ReadonlyMap<string, number>
	/** Columns of Moorings by name. */
	readonly columns: ReadonlyMap<string, number>
}

/** The facts as they lie in the store, read with hand-written SQL. */
export function readFacts(): Facts {
	const db = new Database(FILE, { readonly: true })
	const document = JSON.parse(
		String(db.prepare(`SELECT body FROM document WHERE kind = 'workspace' ORDER BY version DESC LIMIT 1`).pluck().get())
	) as {
		tables: { id: number; name: string; columns: { id: number; name: string }[] }[]
	}
	const tables = new Map(document.tables.map((table) => [table.name, table.id]))
	const c = (table: string, column: string): string => {
		const found = document.tables.find((each) => each.name === table)?.columns.find((each) => each.name === column)
		return `c${found?.id}`
	}
	const t = (table: string): string => `t${tables.get(table)}`
	const harbour = `h.${c('Harbours', 'Name')} AS harbour`
	const moorings = document.tables.find((table) => table.name === 'Moorings')?.columns ?? []
	const facts: Facts = {
		tables,
		columns: new Map(moorings.map((column) => [column.name, column.id])),
		moorings: db
			.prepare(
				`SELECT m.${c('Moorings', 'Code')} AS code, ${harbour}, m.${c('Moorings', 'Arrears')} AS arrears, m.${c('Moorings', 'Holder phone')} AS phone
				 FROM ${t('Moorings')} m JOIN ${t('Harbours')} h ON h.n = m.${c('Moorings', 'Harbour')}`
			)
			.all() as never,
		inspections: db
			.prepare(
				`SELECT i.${c('Inspections', 'Title')} AS title, ${harbour}
				 FROM ${t('Inspections')} i JOIN ${t('Moorings')} m ON m.n = i.${c('Inspections', 'Mooring')}
				 JOIN ${t('Harbours')} h ON h.n = m.${c('Moorings', 'Harbour')}`
			)
			.all() as never,
		requests: db
			.prepare(
				`SELECT s.${c('Spend requests', 'What for')} AS title, ${harbour}, p.c1 AS decider
				 FROM ${t('Spend requests')} s JOIN ${t('Harbours')} h ON h.n = s.${c('Spend requests', 'Harbour')}
				 JOIN t1 p ON p.n = h.${c('Harbours', 'Controller')}`
			)
			.all() as never
	}
	db.close()
	return facts
}

export const has = (person: DemoPerson, ...roles: DemoPerson['roles'][number][]) =>
	roles.some((role) => person.roles.includes(role))
export const keeps = (person: DemoPerson) => person.name === 'Saskia Holm'

/** Who may see which rows, said once more by hand from what the trust wants. */
export const MAY_SEE: Readonly<Record<string, (facts: Facts, person: DemoPerson) => string[]>> = {
	Moorings: ({ moorings }, person) =>
		moorings
			.filter(
				(row) =>
					keeps(person) ||
					has(person, 'Berth clerks', 'Trust manager') ||
					(has(person, 'Harbour masters', 'Divers') && row.harbour === person.harbour) ||
					(has(person, 'Finance') && row.arrears > 0)
			)
			.map((row) => row.code),
	Inspections: ({ inspections }, person) =>
		inspections
			.filter(
				(row) =>
					keeps(person) ||
					has(person, 'Trust manager') ||
					(has(person, 'Harbour masters', 'Divers') && row.harbour === person.harbour)
			)
			.map((row) => row.title),
	'Spend requests': ({ requests }, person) =>
		requests
			.filter(
				(row) =>
					keeps(person) ||
					has(person, 'Trust manager') ||
					(has(person, 'Harbour masters', 'Divers', 'Berth clerks', 'Stores keepers') &&
						row.harbour === person.harbour) ||
					row.decider === person.name
			)
			.map((row) => row.title)
}
