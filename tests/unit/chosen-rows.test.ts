/** Rows that are chosen on a screen: what other lines read of them, as far as whoever looks sees them. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { mapFormulas } from '$lib/core/app/walk-app.ts'
import { openScreen, readList } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { BERTHS, BO, CODE, DEBT, documentOf, IMKE, NAME, NOW, openPorts, PORT, PORTS } from '../support/ports.ts'

let store: Store

beforeEach(() => {
	store = openPorts()
})

const LINES: ScreenInput['lines'] = [
	{ id: 'ports', kind: 'list', table: PORTS, where: '', sort: [], columns: [NAME], opens: null, holds: 'Port' },
	{
		...{ id: 'berths', kind: 'list', table: BERTHS, where: 'port = here.port', sort: [], columns: [CODE], opens: null },
		lines: [{ id: 'm', kind: 'mark', word: 'owes', tone: 'past', where: 'here.port.debt > 5' }]
	},
	{ id: 'sheet', kind: 'record', table: PORTS, columns: [DEBT], held: 'port' },
	{ id: 'says', kind: 'text', text: '{here.port.name}|{here.port.debt}' },
	{
		...{ id: 'form', kind: 'form', table: BERTHS, columns: [CODE], thanks: '' },
		lines: [{ id: 'e', kind: 'entry', column: PORT, starts: 'here.port' }]
	}
]

/** What is shown to somebody who has chosen a port, by the ids of lines. */
function shownTo(person: number, port: number | undefined) {
	const held = port === undefined ? {} : { PORT: store.ids.toId(PORTS, port) }
	const request = { app: 1, draft: true, document: documentOf(LINES), actor: { person }, now: NOW, held }
	const shown = openScreen(store, request).screen?.lines ?? []
	const find = <K extends (typeof shown)[number]['kind']>(kind: K, id: string) =>
		shown.find((each): each is Extract<(typeof shown)[number], { kind: K }> => each.kind === kind && each.id === id)
	const berths = find('list', 'berths')
	const [entry] = find('form', 'form')?.pages.flatMap(({ parts }) => parts.filter((part) => part.id === 'e')) ?? []
	return {
		berths: berths?.page.rows.map((row) => row.cells[`c${CODE}`]),
		count: berths?.count,
		waitsFor: berths?.waitsFor,
		marks: berths?.page.rows.flatMap((row) => row.flags ?? []),
		sheet: find('record', 'sheet'),
		says: find('text', 'says')?.html,
		starts: entry?.kind === 'entry' ? entry.starts : undefined
	}
}

describe('a chosen row', () => {
	test('is read by the lists, sheets, texts and forms of its screen', () => {
		expect(shownTo(BO, 1)).toMatchObject({
			...{ berths: ['N1', 'N2'], count: 2, marks: [0, 0], says: '<p>North|7</p>\n' },
			...{ sheet: { waits: false, row: { cells: { [`c${DEBT}`]: 7 } } }, starts: { label: 'North' } }
		})
	})

	test('until one is chosen nothing is read of it', () => {
		expect(shownTo(BO, undefined)).toMatchObject({
			...{ berths: [], count: 0, marks: [], waitsFor: 'ports', says: '<p>|</p>\n' },
			...{ sheet: { waits: true, row: null }, starts: null }
		})
	})

	test('has for its reader only the cells that they see', () => {
		expect(shownTo(IMKE, 1)).toMatchObject({ berths: ['N1', 'N2'], marks: [], says: '<p>North|</p>\n' })
		expect(shownTo(IMKE, 1).sheet?.row?.cells).not.toHaveProperty(`c${DEBT}`)
	})

	test('that its reader does not see is none', () => {
		expect(shownTo(IMKE, 2)).toMatchObject({
			...{ berths: [], count: 0, says: '<p>|</p>\n', sheet: { waits: false, row: null }, starts: null }
		})
	})

	test('counts in further pages too', () => {
		const place = { app: 1, draft: true, document: documentOf(LINES), screen: 's', line: 'berths', now: NOW }
		const page = (person: number, port: number) =>
			readList(store, { ...place, actor: { person }, held: { port: store.ids.toId(PORTS, port) } }).rows.length
		expect([page(BO, 1), page(BO, 2), page(IMKE, 1), page(IMKE, 2)]).toEqual([2, 1, 2, 0])
	})

	test('of another table is none', () => {
		const held = { port: store.ids.toId(BERTHS, 1) }
		const request = { app: 1, draft: true, document: documentOf(LINES), actor: { person: BO }, now: NOW, held }
		const berths = openScreen(store, request).screen?.lines.find(({ id }) => id === 'berths')
		expect(berths).toMatchObject({ count: 0 })
	})
})

describe('a row that is chosen among few', () => {
	const lines: ScreenInput['lines'] = [
		{ id: 'port', kind: 'choose', table: PORTS, where: 'name <> "West"', holds: 'port', label: 'Which port' },
		{
			...{ id: 'berths', kind: 'list', table: BERTHS, where: 'code <> "N2"', once: 'port = here.port', sort: [] },
			...{ columns: [CODE], opens: null }
		}
	]
	const shown = (person: number, port?: number) => {
		const held = port === undefined ? {} : { port: store.ids.toId(PORTS, port) }
		const request = { app: 1, draft: true, document: documentOf(lines), actor: { person }, now: NOW, held }
		const all = openScreen(store, request).screen?.lines ?? []
		const [choose] = all.filter((each) => each.kind === 'choose')
		const [list] = all.filter((each) => each.kind === 'list')
		return {
			label: choose?.label,
			options: choose?.options.map(({ cell }) => cell),
			isChosen: choose?.chosen === store.ids.toId(PORTS, port ?? 0),
			berths: list?.page.rows.map((row) => row.cells[`c${CODE}`])
		}
	}

	test('is one of those that its reader sees, and counts once it is chosen', () => {
		expect(shown(BO)).toEqual({
			label: 'Which port',
			options: ['North', 'South'],
			isChosen: false,
			berths: ['N1', 'S1']
		})
		expect(shown(BO, 2)).toMatchObject({ isChosen: true, berths: ['S1'] })
		expect(shown(IMKE)).toMatchObject({ options: ['North'], berths: ['N1', 'S1'] })
		expect(shown(IMKE, 1)).toMatchObject({ isChosen: true, berths: ['N1'] })
		// One that its reader does not see is none, so that all stand there.
		expect(shown(IMKE, 2)).toMatchObject({ isChosen: false, berths: ['N1', 'S1'] })
	})

	test('follows a renamed column, and is checked', () => {
		const renamed = mapFormulas(documentOf(lines), (text) => text.replace('port', 'harbour'))
		expect(JSON.stringify(renamed)).toContain('"once":"harbour = here.port"')
		const found = (...given: ScreenInput['lines']) =>
			checkApp(documentOf(given), store.workspace()).map(({ message }) => message).join(' ') // prettier-ignore
		expect(found(...lines)).toBe('')
		expect(found({ id: 'x', kind: 'choose', table: PORTS, where: '', holds: 'my port' })).toContain(
			'cannot follow "here."'
		)
		expect(found({ id: 'x', kind: 'choose', table: PORTS, where: '', holds: '' })).toContain(
			'Say what the chosen row is called'
		)
		expect(found(lines[1] as ScreenInput['lines'][number])).toContain('Nothing is chosen or held here.')
	})
})

describe('before a release', () => {
	const found = (...lines: ScreenInput['lines']) =>
		checkApp(documentOf(lines), store.workspace()).map(({ place, message }) => `${place}: ${message}`)
	const [ports, berths, sheet] = LINES as [ScreenInput['lines'][number], ScreenInput['lines'][number], ScreenInput['lines'][number]] // prettier-ignore

	test('what is chosen nowhere is said', () => {
		expect(found(...LINES)).toEqual([])
		expect(found(berths).join()).toContain('Nothing is chosen or held here.')
		expect(found(sheet).join()).toContain('Nothing on this screen chooses or holds a row of ports called "port".')
		const near = { ...ports, holds: 'ports' } as typeof ports
		expect(found(near, berths).join()).toContain('Did you mean here.ports?')
	})

	test('a name that no formula could say is refused', () => {
		expect(found({ ...ports, holds: 'my port' } as typeof ports).join()).toContain('cannot follow "here."')
	})
})

test('formulas that read it are gone through with what they read', () => {
	const seen: [string, unknown][] = []
	mapFormulas(documentOf(LINES), (text, { table, here }) => {
		seen.push([text, { table, here }])
		return text
	})
	expect(seen).toContainEqual(['port = here.port', { table: BERTHS, here: { Port: { table: PORTS } } }])
	expect(seen).toContainEqual(['here.port.debt > 5', { table: BERTHS, here: { Port: { table: PORTS } } }])
})
