import { BRITISH } from '../model/writing.ts'
import { describe, expect, test } from 'vitest'
import { EVERYTHING } from '../access/rights.ts'
import { checkCondition } from '../formula/check/check.ts'
import type { Line } from '../access/types.ts'
import type { Catalogue, Table } from '../model/table.ts'
import { checkApp } from './check-app.ts'
import { APP_FORMAT, appSchema, parseApp, screenSchema, type AppDocument } from './document.ts'
import type { ScreenLineInput } from './lines/all.ts'
import { mapColumns, mapFormulas, namesColumn, tablesOf } from './walk-app.ts'

const people: Table = {
	id: 1,
	name: 'People',
	keepers: [],
	label: 1,
	columns: [{ id: 1, name: 'Name', type: 'text' }],
	checks: [],
	backReferences: []
}
const moorings: Table = {
	id: 3,
	name: 'Moorings',
	keepers: [],
	label: 20,
	columns: [
		{ id: 20, name: 'Code', type: 'code', required: true },
		{ id: 21, name: 'Master', type: 'reference', to: 1 },
		{ id: 22, name: 'Next due', type: 'date' }
	],
	checks: [],
	backReferences: []
}
const catalogue: Catalogue = {
	people,
	timeZone: 'UTC',
	writing: BRITISH,
	tables: new Map([people, moorings].map((table) => [table.id, table]))
}
const see: Line = { id: 'a', table: 3, role: 1, verbs: ['see', 'add'], where: EVERYTHING, columns: { kind: 'all' } }

let next = 0
const newId = () => `id${next++}`
/** A list, a sheet and a form, with nothing to find. */
const made = (): AppDocument =>
	appSchema.parse({
		...{ format: APP_FORMAT, name: 'Care', about: '', colour: 'sea', icon: null, routines: [], signoffs: [] },
		screens: [
			{
				...{ id: 'list', title: 'Moorings' },
				lines: [
					{ id: newId(), kind: 'heading', text: 'Moorings' },
					{
						...{ id: newId(), kind: 'list', table: 3, where: '', sort: [{ column: 20, descending: false }] },
						...{ columns: [20, 21, 22], opens: 'sheet' }
					},
					{ id: newId(), kind: 'button', label: 'Add a mooring', does: { kind: 'open', screen: 'form' } }
				]
			},
			{ id: 'sheet', title: 'Mooring', lines: [{ id: newId(), kind: 'record', table: 3, columns: [20, 21, 22] }] },
			{
				...{ id: 'form', title: 'Add a mooring', stands: 'by link only' },
				lines: [{ id: newId(), kind: 'form', table: 3, columns: [20, 21, 22], thanks: 'Saved.' }]
			}
		]
	})

/** The messages of the check, after one change of a document that is right. */
function findings(change: (document: AppDocument) => AppDocument, lines: readonly Line[] = [see]): string[] {
	return checkApp(change(made()), { catalogue, lines, roles: [] }).map(
		(finding) => `${finding.weight}: ${finding.message}`
	)
}

test('a list, a sheet and a form pass the check', () => {
	expect(findings((same) => same)).toEqual([])
})

const LIST: ScreenLineInput = { id: 'l', kind: 'list', table: 3, where: '', sort: [], columns: [20], opens: null }
const inList = (line: ScreenLineInput): ScreenLineInput => ({ ...LIST, lines: [line] })
const deep = (line: ScreenLineInput): ScreenLineInput => ({
	...{ id: 'a', kind: 'section', title: 'A' },
	lines: [{ id: 'b', kind: 'fold', title: 'B', lines: [inList(line)] }]
})

test('whatever goes through a document comes to the lines within lines', () => {
	const mark: ScreenLineInput = { id: 'm', kind: 'mark', word: 'x', tone: 'look', where: 'Code = "M"' }
	const document: AppDocument = {
		...made(),
		screens: [screenSchema.parse({ id: 's', title: 'Start', lines: [deep({ ...mark }), inList(mark)] })]
	}
	const seen: string[] = []
	const mapped = mapFormulas(document, (text, { table }, place) => {
		seen.push(`${place}: ${table} ${text}`)
		return text.replace('Code', 'Name')
	})
	expect(seen).toEqual(['Screen Start: 3 Code = "M"', 'Screen Start: 3 Code = "M"'])
	expect(JSON.stringify(mapped).match(/Name = /g)).toHaveLength(2)
	// Those of a text stand over no row.
	const greeting = screenSchema.parse({
		id: 's',
		title: 'S',
		lines: [{ id: 't', kind: 'text', text: 'For {me.Name}' }]
	})
	const greeted = mapFormulas({ ...document, screens: [greeting] }, (text, { table }) => `${text}${String(table)}`) // prettier-ignore
	expect(greeted.screens[0]?.lines[0]).toMatchObject({ text: 'For {me.Nameundefined}' })
	expect(tablesOf(document).map(({ table }) => table)).toEqual([3, 3])
	expect(namesColumn(document.screens[0]?.lines ?? [], 20)).toBe(true)
	const without = mapColumns(document, (column) => (column === 20 ? undefined : column))
	expect(namesColumn(without.screens[0]?.lines ?? [], 20)).toBe(false)
})

const withLine = (index: number, change: object) => (document: AppDocument) =>
	({
		...document,
		screens: document.screens.map((screen, i) =>
			i === index
				? {
						...screen,
						lines: screen.lines.map((line) =>
							line.kind === 'heading' || line.kind === 'button' ? line : { ...line, ...change }
						)
					}
				: screen
		)
	}) as AppDocument

describe('the check before a release', () => {
	test.each<[string, (document: AppDocument) => AppDocument, string]>([
		['no screens', (document) => ({ ...document, screens: [] }), 'mistake: There is no screen yet.'],
		['a table that is gone', withLine(0, { table: 99 }), 'mistake: Its table is gone.'],
		[
			'a column that is gone',
			withLine(1, { columns: [20, 99] }),
			'mistake: A column it shows is no longer in Moorings.'
		],
		['nothing shown', withLine(1, { columns: [] }), 'mistake: It shows no column yet.'],
		[
			'a condition that cannot be read',
			withLine(0, { where: 'Nxt due < 3' }),
			'mistake: There is no column "Nxt due" in Moorings.'
		],
		[
			'a condition on who looks',
			withLine(0, { where: 'Master.Name = me.Name' }),
			'remark: This hides rows by who looks; it does not guard them.'
		],
		[
			'a form that leaves out what must be filled in',
			withLine(2, { columns: [22] }),
			'mistake: "Code" must be filled in, but the form does not ask for it.'
		],
		['a screen that is gone', withLine(0, { opens: 'nowhere' }), 'mistake: The screen it opens is gone.'],
		[
			'a routine without steps',
			(document) => ({
				...document,
				routines: [{ id: 'r', name: 'R', start: { kind: 'button', table: 3 }, steps: [] }]
			}),
			'mistake: It has no step yet.'
		],
		[
			'a message to nobody',
			(document) => ({
				...document,
				routines: [
					{
						id: 'r',
						name: 'R',
						start: { kind: 'button', table: 3 },
						steps: [{ id: 's', kind: 'send', to: 'Next due', subject: '', body: '' }]
					}
				]
			}),
			'mistake: This names no person.'
		],
		[
			'a message whose formula is wrong',
			(document) => ({
				...document,
				routines: [
					{
						id: 'r',
						name: 'R',
						start: { kind: 'button', table: 3 },
						steps: [{ id: 's', kind: 'send', to: 'Master', subject: 'Look at {Cod}', body: '' }]
					}
				]
			}),
			'Did you mean "Code"?'
		],
		[
			'a column set without anybody pressing',
			(document) => ({
				...document,
				routines: [
					{
						id: 'r',
						name: 'R',
						start: { kind: 'rows', table: 3, when: 'added', where: '' },
						steps: [{ id: 's', kind: 'set', column: 22, formula: 'TODAY()' }]
					}
				]
			}),
			'mistake: It writes, and nobody presses here: say at the start which role it acts as'
		],
		[
			'a sign-off that waits on nobody',
			(document) => ({
				...document,
				signoffs: [{ id: 'o', name: 'O', table: 3, where: '', decider: '', columns: [20], children: [] }]
			}),
			'mistake: '
		]
	])('finds %s', (_what, change, wanted) => {
		expect(findings(change).some((finding) => finding.includes(wanted))).toBe(true)
	})

	test.each<[string, ScreenLineInput, string]>([
		[
			'a mark that stands in no list',
			{ id: 'm', kind: 'mark', word: 'x', tone: 'look', where: 'Code = ""' },
			'It may not stand here'
		],
		[
			'a mark whose condition is wrong',
			inList({ id: 'm', kind: 'mark', word: 'x', tone: 'look', where: 'Cod = ""' }),
			'Did you mean "Code"?'
		],
		[
			'a mark without a word',
			inList({ id: 'm', kind: 'mark', word: '', tone: 'look', where: 'Code = ""' }),
			'The mark has no word'
		],
		['a role that is gone', { id: 'h', kind: 'heading', text: 'x', who: [99] }, 'A role that it is for is gone.'],
		['a text whose value cannot be read', { id: 't', kind: 'text', text: 'For {me.Nam}' }, 'Nam'],
		['tabs without a tab', { id: 't', kind: 'tabs' }, 'It has no tab yet'],
		['what belongs to a row by no reference', { ...LIST, of: 20 }, 'found by a reference'],
		['a list narrowed down by what is gone', { ...LIST, filters: [999] }, 'narrowed down by is gone'],
		[
			'a line within lines within lines',
			deep({ id: 'm', kind: 'mark', word: 'x', tone: 'look', where: 'Cod' }),
			'Start, line 4'
		]
	])('finds %s', (_what, line, wanted) => {
		const screens = [{ id: 's', title: 'Start', lines: [line] }].map((each) => screenSchema.parse(each))
		const found = checkApp({ ...made(), screens }, { catalogue, lines: [see], roles: [] })
		expect(found.map(({ place, message }) => `${place}: ${message}`).join(' ')).toContain(wanted)
	})

	test('does not remark a condition on who looks that every line asks as well', () => {
		const where = 'Master.Name = me.Name and Code <> "x"'
		const shut = (text: string): Line => {
			const { expr } = checkCondition(text, { catalogue, rows: [moorings], me: true })
			if (!expr) throw new Error('Expected the condition to be right')
			return { ...see, where: expr }
		}
		const hides = (lines: readonly Line[]) =>
			findings(withLine(0, { where }), lines).some((finding) => finding.includes('does not guard'))
		expect(hides([shut('Master.Name = me.Name')])).toBe(false)
		expect(hides([shut('Master.Name = me.Name and ISBLANK(Next due)')])).toBe(false)
		expect(hides([shut('Master.Name = me.Name'), { ...see, id: 'b' }])).toBe(true)
		expect(hides([shut('Code <> "x"')])).toBe(true)
	})

	test('remarks columns that nobody sees, with the line that shows them', () => {
		const only = { ...see, columns: { kind: 'only' as const, columns: [20, 21] } }
		const found = checkApp(made(), { catalogue, lines: [only], roles: [] }).filter(({ message }) =>
			message.includes('Next due')
		)
		expect(found.map(({ place, spot, weight }) => [place, spot?.screen, weight])).toEqual([
			['Moorings, line 2', 'list', 'remark'],
			['Mooring, line 1', 'sheet', 'remark']
		])
		const both = [only, { ...see, id: 'b', columns: { kind: 'except' as const, columns: [21] } }]
		expect(checkApp(made(), { catalogue, lines: both, roles: [] })).toEqual([])
	})

	test('remarks what nobody will be offered', () => {
		expect(findings((same) => same, [])).toEqual([
			'remark: No line of access lets anybody see Moorings, so this stays empty.',
			'remark: No line of access lets anybody see Moorings, so this stays empty.',
			'remark: No line of access lets anybody add to Moorings, so nobody is offered this form.'
		])
	})
})

describe('a document that a newer program wrote', () => {
	const newer = { id: 'z', kind: 'hologram', spins: true, lines: [{ id: 'y', kind: 'beam' }] }
	const stored = JSON.stringify({
		...{ format: APP_FORMAT, name: 'N', about: '', colour: 'sea', routines: [], signoffs: [] },
		screens: [
			{
				...{ id: 's', title: 'S' },
				lines: [
					{ id: 'a', kind: 'section', title: 'A', lines: [newer, { id: 'h', kind: 'heading', text: 'H' }] },
					newer
				]
			}
		]
	})
	const read = parseApp(stored)

	test('keeps lines of kinds that are not known here, whole, where they stand', () => {
		const kept = { id: 'z', kind: 'unknown', was: newer }
		expect(read.screens[0]?.lines).toMatchObject([{ kind: 'section', lines: [kept, { kind: 'heading' }] }, kept])
		expect(parseApp(JSON.stringify(read))).toEqual(read)
	})

	test('is not released with them, and says which they are', () => {
		const found = checkApp(read, { catalogue, lines: [], roles: [] })
		expect(found.map(({ place }) => place)).toEqual(['S, line 2', 'S, line 4'])
		expect(found[0]).toMatchObject({
			weight: 'mistake',
			message: expect.stringContaining('needs a newer program') as string
		})
	})

	test('has them back where they are known', () => {
		const known = { id: 'k', kind: 'heading', text: 'Known by now' }
		const document = JSON.parse(stored) as { screens: { lines: unknown[] }[] }
		const screens = [{ id: 's', title: 'S', lines: [{ id: 'k', kind: 'unknown', who: [], was: known }] }]
		expect(parseApp(JSON.stringify({ ...document, screens })).screens[0]?.lines).toMatchObject([known])
	})
})
