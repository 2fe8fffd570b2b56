/** What an open screen is answered when something changed: the lines concerned, and of a list only the rows that differ. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { differing, signOfLine, signOfRow } from '$lib/core/requests/screen-signs.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { openScreen, readAgain } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { knownOf, mergeLines, rowsThatDiffer, showsIn } from '$lib/ui/lines/lines-again.ts'
import { BERTHS, BO, CODE, DEBT, documentOf, IMKE, NAME, NOW, openPorts, PORT, PORTS } from '../support/ports.ts'

const LINES: ScreenInput['lines'] = [
	{ id: 'sought', kind: 'search', holds: 'sought' },
	{
		...{ id: 'part', kind: 'section', title: 'All of it' },
		lines: [
			{ id: 'ports', kind: 'list', table: PORTS, where: '', sort: [], columns: [NAME], opens: null },
			{
				...{ id: 'berths', kind: 'list', table: BERTHS, where: '', once: 'code = here.sought', opens: null },
				...{ sort: [{ column: CODE, descending: false }], columns: [CODE, PORT] }
			}
		]
	},
	{ id: 'says', kind: 'text', text: '{me.Name}' }
]

let store: Store

beforeEach(() => {
	store = openPorts()
})

function open(person: number) {
	const place = { app: 1, draft: true, document: documentOf(LINES), actor: { person }, now: NOW }
	const shown = openScreen(store, place)
	const lines = shown.screen?.lines ?? []
	const shows = showsIn(lines, ({ narrowing, page }) => ({
		narrowing,
		rows: page.rows,
		isWhole: page.next === null
	}))
	const again = (tables: readonly number[] | null, held = {}) =>
		readAgain(store, { ...place, screen: 's', tables, held, release: null, ...knownOf(lines, shows) })
	return { shown, shows, again }
}

const sql = (text: string) => store.db.exec(text)

describe('the lines of an open screen', () => {
	test('are asked for by the tables that changed, and are the same where nothing did', () => {
		const { again } = open(BO)
		expect(again(null)).toEqual({
			kind: 'lines',
			lines: { sought: 'same', ports: 'same', berths: 'same', says: 'same' }
		})
		// The berths show the names of ports; neither shows people.
		expect(again([PORTS])).toEqual({ kind: 'lines', lines: { ports: 'same', berths: 'same' } })
		expect(again([BERTHS])).toEqual({ kind: 'lines', lines: { berths: 'same' } })
		expect(again([1])).toEqual({ kind: 'lines', lines: { says: 'same' } })
		expect(again([999])).toEqual({ kind: 'lines', lines: {} })
	})

	test('bring the rows that differ, and go into their places', () => {
		const { shown, shows, again } = open(BO)
		sql(`UPDATE t${BERTHS} SET c${CODE} = 'N7', c${CODE}k = 'n7', rev = rev + 1 WHERE n = 2`)
		const answer = again([BERTHS])
		const berths = answer.kind === 'lines' ? answer.lines['berths'] : undefined
		const rows = typeof berths === 'object' && berths.kind === 'list' ? berths.page.rows : []
		expect(rows.map((row) => (typeof row === 'string' ? 'same' : row.cells[`c${CODE}`]))).toEqual([
			'same',
			'N7',
			'same'
		])

		const merged = answer.kind === 'lines' ? mergeLines(shown, answer.lines, shows) : shown
		const read = openScreen(store, {
			app: 1,
			draft: true,
			document: documentOf(LINES),
			actor: { person: BO },
			now: NOW
		})
		expect(merged).toEqual(read)
		// What did not change is the same object, so that it is not drawn again.
		expect(merged.screen?.lines[0]).toBe(shown.screen?.lines[0])
		expect(rowsOf(merged.screen?.lines)[0]).toBe(rowsOf(shown.screen?.lines)[0])
	})

	test('say of a row that came and one that went', () => {
		const { again } = open(BO)
		sql(`DELETE FROM t${BERTHS} WHERE n = 1;
			INSERT INTO t${BERTHS} (n, made_at, changed_at, c${CODE}, c${CODE}k) VALUES (9, 0, 0, 'A1', 'a1')`)
		const answer = again([BERTHS])
		const berths = answer.kind === 'lines' ? answer.lines['berths'] : undefined
		expect(berths).toMatchObject({ count: 3, page: { rows: [{ cells: { [`c${CODE}`]: 'A1' } }, store.ids.toId(BERTHS, 2), store.ids.toId(BERTHS, 3)] } }) // prettier-ignore
	})

	test('go by the words that were typed meanwhile', () => {
		const answer = open(BO).again(null, { sought: 's1' })
		expect(answer).toMatchObject({ kind: 'lines', lines: { sought: { typed: 's1' }, berths: { count: 1 } } })
	})

	test('come whole where others are shown by now', () => {
		const lines = LINES.filter(({ id }) => id !== 'says')
		const place = { app: 1, draft: true, document: documentOf(lines), actor: { person: BO }, now: NOW, screen: 's' }
		const whole = { kind: 'whole', screen: { screen: { lines: [{ id: 'sought' }, { id: 'part' }] } } }
		const again = (known: Record<string, string>, release: number | null) =>
			readAgain(store, { ...place, known, lists: {}, tables: null, release })
		const all = { sought: '', ports: '', berths: '' }
		expect(again(all, null).kind).toBe('lines')
		expect(again({ ports: '' }, null)).toMatchObject(whole)
		// Of another release, whatever it holds.
		expect(again(all, 3)).toMatchObject(whole)
	})

	test('hold nothing that their reader does not see', () => {
		const { again } = open(IMKE)
		sql(`UPDATE t${PORTS} SET c${NAME} = 'Southmost', c${DEBT} = 99, rev = rev + 1 WHERE n = 2`)
		const text = JSON.stringify(again(null))
		expect(text).not.toContain('Southmost')
		expect(again([PORTS])).toMatchObject({ kind: 'lines', lines: { ports: 'same' } })
	})
})

test('rows that only moved up from a further page are no news', () => {
	const row = (n: number, rev = 1) => ({ id: `r${n}`, rev, cells: {} })
	const [one, two, three, four] = [row(1), row(2), row(3), row(4)]
	const before = [one, two, three]
	expect(rowsThatDiffer({ rows: before, isWhole: false }, [one, three, four])).toEqual([])
	expect(rowsThatDiffer({ rows: before, isWhole: true }, [one, two, three, four])).toEqual(['r4'])
	expect(rowsThatDiffer({ rows: before, isWhole: false }, [four, one, row(2, 2), three])).toEqual(['r4', 'r2'])
})

test('a sign tells one state from another, and the same from the same', () => {
	const line: ShownLine = { id: 'h', kind: 'heading', text: 'Due' }
	expect(differing(line, { known: { h: signOfLine({ ...line }) }, lists: {} })).toBe('same')
	expect(differing(line, { known: { h: signOfLine({ ...line, text: 'Duo' }) }, lists: {} })).toBe(line)
	expect(differing(line, { known: {}, lists: {} })).toBe(line)
	expect(signOfRow({ id: 'r', rev: 1, cells: {} })).not.toBe(signOfRow({ id: 'r', rev: 2, cells: {} }))
})

function rowsOf(lines: readonly ShownLine[] = []) {
	return lines.flatMap((line) =>
		line.kind === 'section' ? line.lines.flatMap((inner) => (inner.kind === 'list' ? inner.page.rows : [])) : []
	)
}
