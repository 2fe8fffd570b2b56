/** Bundles: an app with its tables into another workspace and into its own, who sees what of it, and what is wrong with one. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { Bundle } from '$lib/core/app/bundle.ts'
import { bundleSchema, MOST_BUNDLED } from '$lib/core/app/bundle.ts'
import { STARTERS } from '$lib/core/app/starters/all.ts'
import { readDraft, addAppFrom } from '$lib/server/apps/apps.ts'
import { checkDraft } from '$lib/server/apps/check-draft.ts'
import { startFrom } from '$lib/server/apps/start-from.ts'
import { lookAtBundle } from '$lib/server/bundles/look-at-bundle.ts'
import { makeBundle } from '$lib/server/bundles/make-bundle.ts'
import { putBundle } from '$lib/server/bundles/put-bundle.ts'
import { proposeAccess } from '$lib/server/review/propose-access.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [CREW, IMKE, OTHER] = [10, 2, 3]
const by = { actor: { person: KEEPER }, now: NOW }
const [PORTS, PORT] = [200, 2000]
const [BUOYS, NAME, AT, KEPT_BY, LIES_BY, DEEP, KIND, LABEL, SHARED, READS, COUNT] = [201, 2010, 2011, 2012, 2013, 2014, 2015, 2016, 2017, 2018, 2019] // prettier-ignore
const [BERTHS, BERTH] = [202, 2020]

const openEmpty = (roles = [{ id: CREW, name: 'Crew', includes: [] }]) => {
	const made = openScratch({ now: NOW, roles, tables: [] })
	made.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${OTHER}, 0, 0, 'Una', 'una');
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER}), (${IMKE}, ${CREW})`)
	return made
}
/** As the file that leaves. */
const textOf = (store: Store, app: number) => JSON.stringify({ ...makeBundle(store, { app, ...by }).bundle, files: [] })
const put = (store: Store, text: string) =>
	store.db.transaction(() => putBundle(store, { name: 'Buoys.bundle.json', text, ...by }))()

/** A bundle by its names alone: what is the same in every workspace. */
function byName({ tables, access, roles }: Bundle) {
	const place = new Map(
		tables.flatMap((table) => [
			[table.id, table.name] as const,
			...table.columns.map(({ id, name }) => [id, `${table.name} ${name}`] as const)
		])
	)
	const rowOf = new Map(tables.flatMap(({ name, rows }) => rows.map(({ id }, i) => [id, `${name} ${i}`] as const)))
	return {
		access: access.map(({ table, role, verbs, where }) => [place.get(table), roles.find(({ id }) => id === role)?.name, verbs, where]), // prettier-ignore
		tables: tables.map(({ name, label, checks, columns, rows }) => ({
			...{ name, checks, label: place.get(label) },
			columns: columns.map(({ id: _id, to, uniqueWithin: _within, ...column }) => ({
				...column,
				to: place.get(to ?? 0)
			})),
			rows: rows.map(({ cells }) =>
				Object.entries(cells).map(([key, cell]) => [
					place.get(Number(key.slice(1))),
					typeof cell === 'object' && cell !== null ? rowOf.get(cell.row) : cell
				])
			)
		}))
	}
}
const parsed = (text: string) => bundleSchema.parse(JSON.parse(text))

describe.each(STARTERS.map(({ id, name }) => [name, id]))('%s', (_name, starter) => {
	test('goes into another workspace as it was, and is checked there without a mistake', () => {
		const from = openEmpty()
		const app = startFrom(from, { starter, name: 'New', about: '', role: CREW, ...by })
		const text = textOf(from, app)
		const to = openEmpty([
			{ id: 20, name: 'Bosses', includes: [] },
			{ id: 21, name: 'crew', includes: [] }
		])
		const made = put(to, text)
		expect(checkDraft(to, { app: made.app, now: NOW }).filter(({ weight }) => weight === 'mistake')).toEqual([])
		expect(byName({ ...parsed(textOf(to, made.app)), access: [] })).toEqual(byName({ ...parsed(text), access: [] }))
		expect(readDraft(to, made.app).document.screens.map(({ title }) => title)).toEqual(readDraft(from, app).document.screens.map(({ title }) => title)) // prettier-ignore
	})
})

describe('tables with rows', () => {
	let store: Store
	let app: number

	beforeEach(() => {
		store = openScratch({
			now: NOW,
			roles: [{ id: CREW, name: 'Crew', includes: [] }, { id: BUILDER, name: 'Builders', includes: [] }], // prettier-ignore
			lines: [
				accessLine({ id: 'l', table: BUOYS, role: CREW, verbs: ['see'], where: 'Kind = "Can"' }),
				accessLine({ id: 'n', table: BERTHS, role: BUILDER, verbs: ['see'] }),
				accessLine({ id: 'm', table: PORTS, role: CREW, verbs: ['see'] })
			],
			tables: [
				{ id: PORTS, name: 'Ports', keepers: [KEEPER], label: PORT, columns: [{ id: PORT, name: 'Name', type: 'text' }, { id: COUNT, name: 'How many', type: 'computed', formula: 'COUNT(buoys)' }] }, // prettier-ignore
				{ id: BERTHS, name: 'Berths', keepers: [OTHER], label: BERTH, columns: [{ id: BERTH, name: 'Name', type: 'text' }] }, // prettier-ignore
				{
					...{ id: BUOYS, name: 'Buoys', keepers: [KEEPER], label: NAME },
					checks: [{ formula: 'Deep >= 0', message: 'It lies under water.' }],
					columns: [
						{ id: NAME, name: 'Name', type: 'text', required: true },
						{ id: AT, name: 'At', type: 'reference', to: PORTS, reverseName: 'buoys' },
						{ id: KEPT_BY, name: 'Kept by', type: 'reference', to: 1, reverseName: 'buoys', required: true },
						{ id: LIES_BY, name: 'Lies by', type: 'reference', to: BUOYS, reverseName: 'beside it' },
						{ id: DEEP, name: 'Deep', type: 'decimal', places: 1, unit: 'm', otherwise: '5' },
						{ id: KIND, name: 'Kind', type: 'choice', choices: ['Can', 'Cone'] },
						{ id: LABEL, name: 'Called', type: 'computed', formula: 'Name & " at " & At.Name' },
						{ id: SHARED, name: 'Berth', type: 'reference', to: BERTHS, reverseName: 'buoys' },
						{ id: READS, name: 'Berth name', type: 'computed', formula: 'Berth.Name' }
					]
				}
			]
		})
		store.db.exec(`
			INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${OTHER}, 0, 0, 'Una', 'una');
			INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER}), (${IMKE}, ${CREW});
			INSERT INTO t200 (n, made_at, changed_at, c2000, c2000k) VALUES (1, 0, 0, 'Varrow', 'varrow'), (2, 0, 0, 'Ness', 'ness');
			INSERT INTO t202 (n, made_at, changed_at, c2020, c2020k) VALUES (1, 0, 0, 'North arm', 'north arm');
			INSERT INTO t201 (n, made_at, changed_at, c2010, c2010k, c2011, c2012, c2013, c2014, c2015, c2017) VALUES
				(1, 0, 0, 'Heron', 'heron', 1, ${IMKE}, 2, 45, 1, 1), (2, 0, 0, 'Dunlin', 'dunlin', 2, ${IMKE}, 1, NULL, 2, NULL)`)
		const list = { id: 'l', kind: 'list' as const, table: BUOYS, where: 'At.Name = "Varrow"', sort: [], columns: [NAME, DEEP], opens: null, who: [CREW] } // prettier-ignore
		app = addAppFrom(store, { document: documentOf([list, { ...list, id: 'b', table: BERTHS, where: '', columns: [BERTH] }]), ...by }) // prettier-ignore
	})

	test('take what its maker keeps, and say what stays behind', () => {
		const { bundle, leftOut } = makeBundle(store, { app, ...by })
		expect(bundle.tables.map(({ name, rows }) => [name, rows.length])).toEqual([
			['Buoys', 2],
			['Ports', 2]
		])
		expect(leftOut).toEqual([
			'Berths: kept by somebody else. What points to it is text.',
			'Buoys, Berth name: it is worked out from a table that stays behind.',
			'People: never in a bundle. What points to them is blank.'
		])
		const text = JSON.stringify(bundle)
		expect(text).not.toMatch(/Imke|Una|keeper@/)
		expect(bundle.access.map(({ where }) => where)).toEqual(['Kind = "Can"', ''])
	})

	test('come back with what they hold, what points to one another, and no more', () => {
		const to = openEmpty()
		const { tables } = put(to, textOf(store, app))
		const buoys = to.workspace().catalogue.tables.get(tables[0]?.id ?? 0)
		const { rows } = readRows(to, by.actor, { table: buoys?.id ?? 0 }, NOW)
		const named = rows.map(({ cells }) =>
			Object.fromEntries(
				(buoys?.columns ?? []).map(({ id, name }) => {
					const cell = cells[`c${id}`]
					return [name, typeof cell === 'object' && cell !== null && 'label' in cell ? cell.label : (cell ?? null)]
				})
			)
		)
		expect(named).toEqual([
			{ 'Name': 'Heron', 'At': 'Varrow', 'Kept by': null, 'Lies by': 'Dunlin', 'Deep': 4.5, 'Kind': 'Can', 'Called': 'Heron at Varrow', 'Berth': 'North arm' }, // prettier-ignore
			// A default fills nothing that was blank.
			{ 'Name': 'Dunlin', 'At': 'Ness', 'Kept by': null, 'Lies by': 'Heron', 'Deep': null, 'Kind': 'Cone', 'Called': 'Dunlin at Ness', 'Berth': null } // prettier-ignore
		])
		// From then on its rules hold.
		const add = (cells: Record<string, string | number>) => changeRows(to, [{ kind: 'add', table: buoys?.id ?? 0, cells: Object.entries(cells).map(([name, value]) => ({ column: buoys?.columns.find((each) => each.name === name)?.id ?? 0, value })) }], { ...by, through: 'grid' }) // prettier-ignore
		expect(() => add({ Name: 'Teal', Deep: -1 })).toThrow()
		expect(() => add({ Name: 'Teal' })).toThrow('Kept by')
	})

	test('beside those that are there they get names and numbers of their own, and nothing of these changes', () => {
		const before = JSON.stringify(store.workspace().document.tables)
		const { app: second, tables } = put(store, textOf(store, app))
		expect(tables.map(({ name }) => name)).toEqual(['Buoys 2', 'Ports 2'])
		expect(JSON.stringify(store.workspace().document.tables.slice(0, -2))).toBe(before)
		expect(store.workspace().document.tables.at(-1)?.columns.at(-1)?.formula).toBe('COUNT(buoys)')
		// The list of what stayed behind names a table that is gone, not that which had its number.
		const { screens } = readDraft(store, second).document
		const [own, other] = screens[0]?.lines ?? []
		expect(own).toMatchObject({ table: tables[0]?.id, who: [CREW] })
		expect(store.workspace().catalogue.tables.has((other as { table: number }).table)).toBe(false)
		expect(checkDraft(store, { app: second, now: NOW }).map(({ message }) => message)).toContain('Its table is gone. Choose another.') // prettier-ignore
	})

	test('are seen by nobody else until a line that came along is taken', () => {
		const to = openEmpty([{ id: 30, name: 'Hands', includes: [] }])
		const [buoys] = put(to, textOf(store, app)).tables
		const table = buoys?.id ?? 0
		expect(to.workspace().document.lines).toHaveLength(0)
		expect(readRows(to, { person: IMKE }, { table }, NOW).rows).toEqual([])
		const [came] = proposeAccess(to, { table, ...by })
		expect(came).toMatchObject({ says: 'Came with the table: 1, for Crew, which is not here', asksRole: true, line: { table, where: 'Kind = "Can"' } }) // prettier-ignore
		expect(() => proposeAccess(to, { table, actor: { person: OTHER }, now: NOW })).toThrow('kept by somebody else')
		const same = openEmpty()
		const [again] = put(same, textOf(store, app)).tables
		expect(proposeAccess(same, { table: again?.id ?? 0, ...by })[0]).toMatchObject({ asksRole: false, line: { role: CREW }, comesTo: { people: 1, most: 1 } }) // prettier-ignore
	})

	test('what cannot be worked out here stays out, with what reads it, and is said', () => {
		const { tables, ...rest } = parsed(textOf(store, app))
		const broken = tables.map((table) =>
			table.id === BUOYS
				? {
						...table,
						checks: [...(table.checks ?? []), { formula: 'me.Ship = Name', message: 'Not here' }],
						columns: [
							...table.columns.map((column) => (column.id === NAME ? { ...column, otherwise: 'me.Ship' } : column)),
							{ id: 9001, name: 'mine', type: 'computed' as const, formula: 'me.Ship = Name' },
							{ id: 9002, name: 'not mine', type: 'computed' as const, formula: 'not mine' }
						]
					}
				: table
		)
		const to = openEmpty()
		const { leftOut } = put(to, JSON.stringify({ ...rest, tables: broken }))
		expect(leftOut.map((each) => each.split(':')[0])).toEqual(expect.arrayContaining(['Buoys, its check "Not here"', 'Buoys, the default of Name', 'Buoys, mine'])) // prettier-ignore
		const [buoys] = to.workspace().document.tables.slice(1)
		expect(buoys?.columns.map(({ name }) => name)).toEqual(['Name', 'At', 'Kept by', 'Lies by', 'Deep', 'Kind', 'Called', 'Berth']) // prettier-ignore
		expect(buoys?.checks).toEqual([{ formula: 'Deep >= 0', message: 'It lies under water.' }])
	})

	test('screens for a role that is not here are for builders alone', () => {
		const to = openEmpty([{ id: 30, name: 'Hands', includes: [] }])
		const made = put(to, textOf(store, app))
		expect(readDraft(to, made.app).document.screens[0]?.lines[0]).toMatchObject({ who: [BUILDER] })
		expect(lookAtBundle(to, { name: 'b', text: textOf(store, app), ...by })).toMatchObject({ strange: ['Crew'], tables: [{ name: 'Buoys', rows: 2, lines: 1 }, { name: 'Ports', lines: 1 }] }) // prettier-ignore
	})

	test('are made, looked at and put in by builders alone', () => {
		const other = { actor: { person: OTHER }, now: NOW }
		const text = textOf(store, app)
		expect(() => makeBundle(store, { app, ...other })).toThrow()
		expect(() => lookAtBundle(store, { name: 'b', text, ...other })).toThrow()
		expect(() => putBundle(store, { name: 'b', text, ...other })).toThrow()
	})

	describe('what is wrong with one is said with its place, and nothing of it stays', () => {
		type Change = (bundle: Record<string, never> & ReturnType<typeof parsed>) => unknown
		const cases: readonly (readonly [string, Change | string, string])[] = [
			['no JSON', '{', 'it is no JSON'],
			['another JSON', '[1]', 'expected object'],
			['a document of an app', JSON.stringify(documentOf([])), 'bundle: Invalid input'],
			['a later format', (b) => ({ ...b, bundle: 2 }), 'bundle: Invalid input'],
			['two tables with one number', (b) => ({ ...b, tables: [b.tables[0], b.tables[0]] }), 'two of its tables have the number 201'], // prettier-ignore
			['a table with the number of people', (b) => ({ ...b, people: { id: BUOYS, columns: [] } }), 'two of its tables have the number 201'], // prettier-ignore
			['rows known by nothing', (b) => ({ ...b, tables: b.tables.map((t) => ({ ...t, label: 7 })) }), 'Buoys does not say what its rows are known by'], // prettier-ignore
			['two rows with one id', (b) => ({ ...b, tables: b.tables.map((t) => ({ ...t, rows: [...t.rows, ...t.rows] })) }), 'two rows of Buoys have one id'], // prettier-ignore
			['a row that points nowhere', (b) => ({ ...b, tables: b.tables.map((t) => ({ ...t, rows: t.rows.map((r) => ({ ...r, cells: { ...r.cells, [`c${AT}`]: { row: 'x' } } })) })) }), 'points to x'], // prettier-ignore
			['a kind of column that is none', (b) => ({ ...b, tables: b.tables.map((t) => ({ ...t, columns: [{ ...t.columns[0], type: 'magic' }] })) }), 'tables 1 columns 1 type'], // prettier-ignore
			['words for a number', (b) => ({ ...b, tables: b.tables.map((t) => ({ ...t, rows: t.rows.map((r) => ({ ...r, cells: { ...r.cells, [`c${DEEP}`]: 'deep' } })) })) }), 'Deep: '], // prettier-ignore
			[
				'a column that points out of it',
				(b) => ({ ...b, tables: b.tables.slice(0, 1) }),
				'Buoys, At points to a table that is not in it'
			],
			['an app that cannot be read', (b) => ({ ...b, app: { format: 99 } }), 'format "99"'],
			['no app', ({ app: _app, ...b }) => b, 'app: Invalid input'],
			['a script for an id', (b) => ({ ...b, access: [{ ...b.access[0], id: 'x'.repeat(60) }] }), 'access 1 id']
		]
		test.each(cases)('%s', (_name, change, message) => {
			const text = typeof change === 'string' ? change : JSON.stringify(change(parsed(textOf(store, app)) as never))
			const to = openEmpty()
			const before = JSON.stringify(to.workspace().document)
			const apps = () => to.db.prepare(`SELECT count(*) FROM app`).pluck().get()
			const had = apps()
			expect(() => put(to, text)).toThrow(message)
			expect(JSON.stringify(to.workspace().document)).toBe(before)
			expect([apps(), to.db.prepare(`SELECT count(*) FROM proposed_line`).pluck().get()]).toEqual([had, 0])
		})

		test('more rows than a bundle holds', () => {
			const bundle = parsed(textOf(store, app))
			const [row] = bundle.tables[1]?.rows ?? []
			const many = Array.from({ length: MOST_BUNDLED - 1 }, (_each, i) => ({ ...row, id: String(i), cells: {} }))
			const text = JSON.stringify({ ...bundle, tables: bundle.tables.with(1, { ...bundle.tables[1], rows: many } as never) }) // prettier-ignore
			expect(() => put(openEmpty(), text)).toThrow('at most 20,000 rows')
		})
	})
})
