import { describe, expect, test } from 'vitest'
import { ACCESS_LINE } from './access-line.ts'
import { SCREEN_SENTENCES } from '../app/lines/all.ts'
import { STARTS, STEPS } from '../routine/routine.ts'
import { SIGNOFF_LINE } from '../signoff/sentence.ts'
import { parseLine } from './parse.ts'
import { printText } from './print.ts'
import type { Vocabulary } from './vocabulary.ts'

const vocabulary: Vocabulary = {
	tables: [
		{
			id: 5,
			name: 'Moorings',
			columns: [
				{ id: 17, name: 'Code', type: 'code' },
				{ id: 18, name: 'Next due', type: 'date' },
				{ id: 19, name: 'Arrears', type: 'money' },
				{ id: 20, name: 'Depth', type: 'decimal' }
			]
		},
		{
			id: 6,
			name: 'Inspections',
			columns: [
				{ id: 21, name: 'Mooring', type: 'reference', to: 5 },
				{ id: 22, name: 'Verdict', type: 'choice' },
				{ id: 23, name: 'Date', type: 'date' }
			]
		}
	],
	roles: [
		{ id: 1, name: 'Divers' },
		{ id: 2, name: 'Berth clerks' }
	],
	screens: [{ id: 's1', title: 'Mooring sheet' }],
	signoffs: [{ id: 'go', name: 'Over five hundred' }],
	routines: [{ id: 'r1', name: 'Looked today' }]
}

describe('a sentence that is typed comes out as the line it says, and prints as it was typed', () => {
	test.each([
		['Divers may see every row, all columns'],
		['Divers may see and add rows where Next due < TODAY(), only Code, Next due'],
		['Berth clerks may see rows where Code <> "X, only a name", all columns but Arrears'],
		['Divers may change rows where Code = me.code, all columns; after a change Arrears = 0']
	])('access: %s', (typed) => {
		const parsed = parseLine(typed, [ACCESS_LINE], vocabulary, 5)
		expect(parsed).toMatchObject({ ok: true })
		if (parsed.ok) expect(printText(ACCESS_LINE.kind, parsed.line, vocabulary, 5)).toContain(typed)
	})

	test.each([
		['Heading Due this week', { kind: 'heading', text: 'Due this week' }],
		[
			'List of Moorings where Next due <= TODAY() + 7, by Next due, soonest first; each row shows Code, Arrears; a tap opens Mooring sheet',
			{
				kind: 'list',
				table: 5,
				where: 'Next due <= TODAY() + 7',
				sort: [{ column: 18, descending: false }],
				columns: [17, 19],
				opens: 's1'
			}
		],
		['List of moorings', { kind: 'list', table: 5, where: '', sort: [], columns: [], opens: null }],
		['Button Looked runs Looked today', { kind: 'button', label: 'Looked', does: { kind: 'run', routine: 'r1' } }],
		['Form that adds to Moorings, asking for Code and Arrears', { kind: 'form', table: 5, columns: [17, 19] }],
		[
			'Chart of the sum of Arrears from Moorings where Arrears > 5, by Next due in months, parted by Code; shown side by side',
			{
				...{ kind: 'chart', table: 5, where: 'Arrears > 5', measure: { of: 'sum', column: 19 } },
				...{ by: { column: 18, step: 'months' }, parted: { column: 17, step: null }, as: 'side by side' }
			}
		],
		[
			'Chart of the count from Moorings every row, by Arrears in bands of 2.5, parted by Depth in bands',
			{ kind: 'chart', by: { column: 19, step: 2.5 }, parted: { column: 20, step: 'bands' } }
		],
		[
			'Chart of the count from Inspections every row, by Date in days; shown as a calendar',
			{ kind: 'chart', by: { column: 23, step: 'days' }, as: 'as a calendar' }
		],
		[
			'Scatter of Arrears against Depth, from Moorings where Arrears > 5, told apart by Code',
			{ kind: 'scatter', up: 19, across: 20, table: 5, where: 'Arrears > 5', parted: { column: 17, step: null } }
		],
		[
			'Board of Inspections where Date > TODAY() - 30, in lanes by Verdict; each card shows Mooring, Date; a tap opens Mooring sheet',
			{ kind: 'board', table: 6, where: 'Date > TODAY() - 30', by: 22, columns: [21, 23], opens: 's1' }
		],
		[
			'Figure past due showing the count from Moorings where Next due < TODAY(); the aim is 0',
			{ kind: 'figure', label: 'past due', table: 5, where: 'Next due < TODAY()', aim: '0' }
		]
	])('screen: %s', (typed, wanted) => {
		expect(parseLine(typed, SCREEN_SENTENCES, vocabulary)).toMatchObject({ ok: true, line: wanted })
	})

	test('a name that ends like a clause begins is a name', () => {
		const columns = [
			{ id: 31, name: 'What for', type: 'text' },
			{ id: 32, name: 'State', type: 'choice' }
		]
		const named = { ...vocabulary, tables: [{ id: 9, name: 'Requests', columns }] }
		const board = { kind: 'board', table: 9, by: 32 }
		const read = (text: string) => parseLine(`Board of Requests, in lanes by State; each card shows ${text}`, SCREEN_SENTENCES, named) // prettier-ignore
		expect(read('What for')).toMatchObject({ ok: true, line: { ...board, columns: [31], who: [] } })
		expect(read('What for, State')).toMatchObject({ ok: true, line: { ...board, columns: [31, 32] } })
		expect(read('State, for Divers')).toMatchObject({ ok: true, line: { ...board, columns: [32], who: [1] } })
	})

	test('what is there and not for its reader is not said to be gone', () => {
		const line = { kind: 'list', table: 6, sort: [{ column: 23, descending: false }], columns: [18], where: '' }
		const reads = (unseen: Vocabulary['unseen']) => {
			const tables = vocabulary.tables.slice(0, 1)
			const kind = SCREEN_SENTENCES.find((each) => each.kind.kind === 'list')?.kind
			return kind && printText(kind, line, { ...vocabulary, tables, ...(unseen ? { unseen } : {}) })
		}
		expect(reads({ tables: [6], columns: [23] })).toContain('List of a table that you may not see')
		expect(reads({ tables: [6], columns: [23] })).toContain('by a column that you may not see')
		expect(reads(undefined)).toContain('List of a table that is gone')
	})

	test.each([
		['Set Code to "A" & Arrears', STEPS.set.sentence, { column: 17, formula: '"A" & Arrears' }],
		[
			'Send Harbour.Master the message Look at {Code}, saying It is due.',
			STEPS.send.sentence,
			{ to: 'Harbour.Master', subject: 'Look at {Code}', body: 'It is due.' }
		]
	])('step: %s', (typed, kind, wanted) => {
		expect(parseLine(typed, [kind], vocabulary, 5)).toMatchObject({ ok: true, line: wanted })
	})

	test('sign-off: tables that go with a request are those whose rows point to it', () => {
		const says = (tables: string) =>
			`Rows of Moorings where Arrears > 0 wait on Harbour.Master, who is shown Code, with their ${tables}`
		expect(parseLine(says('Inspections'), [SIGNOFF_LINE], vocabulary)).toMatchObject({
			ok: true,
			line: { table: 5, where: 'Arrears > 0', children: [{ table: 6, column: 21, columns: [22, 23] }] }
		})
		const lost = parseLine(says('Moorings'), [SIGNOFF_LINE], vocabulary)
		expect(lost.ok ? '' : lost.message).toBe('Nothing in "Moorings" points to the rows of this line.')
	})

	test('start: only what can happen to a row', () => {
		const says = (when: string) => parseLine(`When a row of Moorings is ${when}`, [STARTS.rows.sentence], vocabulary)
		expect(says('changed')).toMatchObject({ ok: true, line: { start: { table: 5, when: 'changed' } } })
		expect(says('mislaid')).toMatchObject({ ok: false })
	})

	test.each([
		['List of Mornings', 'There is no table "Mornings". Did you mean "Moorings"?'],
		['Dance with Moorings', 'No line begins like that.']
	])('what cannot be read is said: %s', (typed, message) => {
		const parsed = parseLine(typed, SCREEN_SENTENCES, vocabulary)
		expect(parsed.ok ? '' : parsed.message).toContain(message)
	})
})
