/** Reports: each of whom gets what of which rows, when none is sent, and what the Logbook says. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { addMessage, dropOldFiles } from '$lib/server/queue/messages.ts'
import { reportText, type ReportTable } from '$lib/core/requests/report.ts'
import { claimReport, finishReport } from '$lib/server/jobs/run-jobs.ts'
import { makePdf } from '$lib/server/exports/make-pdf.ts'
import type { MadeReport } from '$lib/server/routines/made-report.ts'
import { makeReport, reportRows } from '$lib/server/routines/make-report.ts'
import type { Store } from '$lib/server/store/store.ts'
import { KEEPER } from '../support/scratch-store.ts'
import {
	asWriter,
	COST,
	DAY,
	documentOfRoutines,
	DUE,
	HELD_BY,
	IMKE,
	ITEM,
	ITEMS,
	LEAST,
	messagesOf,
	NOTE,
	NOW,
	openStock,
	ORDERS,
	release,
	routine,
	STOCK,
	STORES,
	WIM,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
	// Nothing of it is missed: the clock strikes for the first time.
	fired = NOW
})

let fired = NOW
const clock = { kind: 'clock', days: 'every day', at: '12:30', missed: 'once for all' } as const
const report = {
	...{ id: 'p', kind: 'report' as const, to: '"wim@varrow.example"', table: ITEMS, where: '' },
	...{ sort: [{ column: ITEM, descending: false }], columns: [ITEM, STOCK, COST] },
	...{ subject: 'The shelves', body: 'As they stand:' }
} as const
const people = (parts: object, steps: readonly object[]) =>
	({ id: 'e', kind: 'each', table: 1, where: '', ...parts, lines: steps }) as never

/** The clock strikes, and what is to be reported is written. */
function strike(...steps: readonly object[]): void {
	release(store, [routine({ start: clock, steps: steps as never })])
	fired = NOW + 3_600_000
	workOff(store, fired)
	write()
}

function write(now = fired, worker = 'w'): void {
	for (let claimed; (claimed = asWriter(store, () => claimReport(store, { worker, now })));) {
		const { job, report } = claimed
		const made = makeReport(store, { report, now })
		asWriter(store, () => finishReport(store, { job, report, worker, now, made, file: null }))
	}
}

interface Told {
	readonly person: number
	readonly subject: string
	readonly body: string
	readonly link: string | null
	readonly shown: ReportTable
}

function told(): Told[] {
	return store
		.prepare<Omit<Told, 'shown'> & { report: string }>(`SELECT person, subject, body, link, report FROM message`)
		.all()
		.map(({ report, ...rest }) => ({ ...rest, shown: JSON.parse(report) as ReportTable }))
}

const rowsOf = (person: number) => told().find((each) => each.person === person)?.shown.rows
const headsOf = (person: number) =>
	told()
		.find((each) => each.person === person)
		?.shown.heads.map(({ name }) => name)

describe('what somebody is sent', () => {
	test('is what they see of the rows, in order, with their words and a way to a screen', () => {
		strike({ ...report, opens: 's' })
		expect(told()).toMatchObject([
			{ person: WIM, subject: 'The shelves', body: 'As they stand:', link: '/app/1/s', shown: { title: 'items' } }
		])
		expect(rowsOf(WIM)).toEqual([
			['Chain', '60', '9'],
			['Shackle', '40', '7']
		])
	})

	test('for each who holds a role, or any role, with their own sight: no row and no column that they do not see', () => {
		strike(people({}, [{ ...report, to: 'Email' }]))
		expect(told().map(({ person }) => person)).toEqual([KEEPER, IMKE, WIM])
		expect(headsOf(IMKE)).toEqual(['item', 'stock'])
		expect(rowsOf(IMKE)?.map(([item]) => item)).toEqual(['Chain', 'Sealed', 'Shackle'])
		expect(headsOf(WIM)).toEqual(['item', 'stock', 'cost'])
		expect(rowsOf(WIM)?.map(([item]) => item)).toEqual(['Chain', 'Shackle'])
	})

	test('and to nobody but those who hold the role that is named', () => {
		strike(people({ role: STORES }, [{ ...report, to: 'Email' }]))
		expect(told().map(({ person }) => person)).toEqual([WIM])
	})

	test.each([
		['its reader', "'held by' = me", [['Chain'], ['Shackle']]],
		['a moment', 'stock > 50', [['Chain']]],
		['what they do not see, which holds for nothing', 'cost > 0', undefined]
	])('by a condition that reads %s', (_what, where, rows) => {
		const reads = where.includes('cost') ? IMKE : WIM
		strike(people({}, [{ ...report, to: 'Email', where, columns: [ITEM] }]))
		expect(rowsOf(reads)).toEqual(rows)
	})

	test('of a row: those that belong to it, as whoever gets it sees that row', () => {
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at, c30, c31) VALUES (1, 0, 0, 1, 5), (2, 0, 0, 2, 8)`)
		const lines = [{ ...report, to: "'held by'", table: ORDERS, where: 'of = this', sort: [], columns: [31], body: '' }]
		strike({ id: 'e', kind: 'each', table: ITEMS, where: '', lines: [{ ...lines[0], subject: '{item}' }] })
		expect(told().map(({ subject, shown }) => [subject, shown.rows])).toEqual([
			['Shackle', [['5']]],
			['Chain', [['8']]]
		])
	})

	test('counted: how many there are of each, and what their numbers come to, in all too', () => {
		strike(people({}, [{ ...report, to: 'Email', by: { column: ITEM, step: null }, columns: [STOCK, COST] }]))
		expect(headsOf(WIM)).toEqual(['item', 'items', 'stock', 'cost'])
		expect(rowsOf(WIM)).toEqual([
			['Chain', '1', '60', '9'],
			['Shackle', '1', '40', '7']
		])
		expect(told().find(({ person }) => person === WIM)?.shown.foot).toEqual(['All', '2', '100', '16'])
		expect(headsOf(IMKE)).toEqual(['item', 'items', 'stock'])
	})

	test('counted by what they do not see: those rows are said to be left out', () => {
		strike({ ...report, by: { column: HELD_BY, step: null }, columns: [] })
		expect(told()).toMatchObject([{ shown: { rows: [], note: '2 rows not counted: part of each is kept from you' } }])
	})
})

test('a report that cannot be read holds up none behind it', () => {
	store.db.exec(`INSERT INTO job (run_at, task, payload) VALUES (0, 'report', '{"person":"nobody"}')`)
	strike(report)
	expect(told()).toHaveLength(0)
	write(fired + 1)
	expect(told()).toHaveLength(1)
})

describe('nothing is sent', () => {
	test('where there is no row, unless that is wanted', () => {
		strike({ ...report, where: 'stock > 1000' }, { ...report, id: 'q', where: 'stock > 1000', none: 'there are none' })
		expect(told()).toMatchObject([{ shown: { rows: [], more: 0 } }])
		const [{ shown }] = told() as [Told]
		expect(reportText(shown, false)).toBe('item · stock · cost\nThere are none')
	})

	test('to who sees nothing of the table, whatever is wanted', () => {
		strike(people({}, [{ ...report, to: 'Email', table: ORDERS, columns: [31], sort: [], none: 'there are none' }]))
		expect(told().map(({ person }) => person)).toEqual([KEEPER, WIM])
	})

	test('to who may not see it any more by the time it is written', () => {
		release(store, [routine({ start: clock, steps: [report] })])
		workOff(store, NOW + 3_600_000)
		store.db.exec(`DELETE FROM role_held WHERE person = ${WIM}`)
		write()
		expect(messagesOf(store)).toEqual([])
	})

	test('twice, where whoever wrote it was stopped before it was done', () => {
		release(store, [routine({ start: clock, steps: [report] })])
		const now = NOW + 3_600_000
		workOff(store, now)
		const slow = asWriter(store, () => claimReport(store, { worker: 'slow', now }))
		expect(slow).not.toBeNull()
		write(now)
		expect(told()).toHaveLength(0)
		write(now + 600_000)
		if (slow) {
			const made = makeReport(store, { report: slow.report, now })
			asWriter(store, () => finishReport(store, { ...slow, worker: 'slow', now, made, file: null }))
		}
		expect(told()).toHaveLength(1)
	})
})

test('of many rows the first hundred are shown, the rest is counted; its file has them all', () => {
	const values = Array.from({ length: 1_500 }, (_each, i) => `(${i + 10}, 0, 0, 'Item ${i}', ${i})`)
	store.db.exec(`INSERT INTO t2 (n, made_at, changed_at, c20, c21) VALUES ${values.join(', ')}`)
	release(store, [routine({ start: clock, steps: [{ ...report, sort: [] }] })])
	const now = NOW + 3_600_000
	workOff(store, now)
	const claimed = asWriter(store, () => claimReport(store, { worker: 'w', now }))
	if (!claimed) throw new Error('Expected a report to be written')
	const made = makeReport(store, { report: claimed.report, now })
	expect([made?.shown?.rows.length, made?.shown?.more, made?.rows]).toEqual([100, 1_402, 1_502])
	// On paper there are fewer; the message says so where some are left out.
	const paper = { ...claimed.report, step: { ...claimed.report.step, attached: 'a PDF file' } } as typeof claimed.report
	expect(makeReport(store, { report: paper, now })?.shown).toMatchObject({ more: 1_402, note: '' })
	const further = Array.from({ length: 700 }, (_each, i) => `(${i + 2_000}, 0, 0, 'More ${i}', 1)`)
	store.db.exec(`INSERT INTO t2 (n, made_at, changed_at, c20, c21) VALUES ${further.join(', ')}`)
	expect(makeReport(store, { report: paper, now })?.shown?.note).toBe('the file holds the first 2,000 rows')
	store.db.exec('DELETE FROM t2 WHERE n >= 2000')
	const first = reportRows(store, { report: claimed.report, now, after: undefined })
	const second = reportRows(store, { report: claimed.report, now, after: first.next ?? undefined })
	expect([first.rows.length, second.rows.length, second.next]).toEqual([1_000, 502, null])
})

test('a file that came with a message is kept for ninety days, its message longer', () => {
	const kept = () => store.pluck<number>('SELECT count(*) FROM message_file')
	const file = { name: 'a.csv', mediaType: 'text/csv', base64: 'YQ==' }
	addMessage(store, { cause: 'old', person: WIM, subject: 'Old', body: '', link: undefined, file, now: NOW })
	dropOldFiles(store, NOW + 90 * DAY)
	expect(kept()).toBe(1)
	dropOldFiles(store, NOW + 90 * DAY + 1)
	expect(kept()).toBe(0)
	expect(messagesOf(store)).toHaveLength(1)
})

test('what leaves by a report is an export in the Logbook: to whom, which columns, how many rows', () => {
	strike(report)
	const [entry] = store
		.prepare<{ person: number; through: string; table_id: number; body: string }>(
			`SELECT person, through, table_id, body FROM history WHERE kind = 'export'`
		)
		.all()
	expect(entry).toMatchObject({ person: WIM, through: 'routine Low stock', table_id: ITEMS })
	expect(JSON.parse(entry?.body ?? '')).toEqual({ what: 'item, stock, cost', format: 'a message', rows: 2 })
})

describe('before it is released', () => {
	const found = (steps: readonly object[]) =>
		checkApp(documentOfRoutines([routine({ start: clock, steps: steps as never })]), store.workspace())
			.filter(({ weight }) => weight === 'mistake')
			.map(({ message }) => message)

	test.each([
		['a formula that names nobody', { to: '5' }, /names no person/],
		['a column that is gone', { columns: [99] }, /no longer in items/],
		['no column', { columns: [] }, /shows no column/],
		['a condition that cannot be read', { where: 'stock >' }, /./],
		['no subject', { subject: ' ' }, /no subject/],
		['words that cannot be read', { body: '{nothing}' }, /nothing/],
		['a screen that is gone', { opens: 'gone' }, /screen it opens is gone/],
		['a table that is gone', { table: 77 }, /table is gone/],
		['counts with a column of words', { by: { column: NOTE, step: null }, columns: [ITEM] }, /item holds none/],
		['counts by dates without steps', { by: { column: DUE, step: null }, columns: [] }, /Say in which steps/],
		['a document whose picture is no picture', { kind: 'document', lines: [{ id: 'x', kind: 'picture', column: NOTE }] }, /no pictures|no row/], // prettier-ignore
		['counts that come as a file', { by: { column: NOTE, step: null }, columns: [], attached: 'a CSV file' }, /take the file off/i] // prettier-ignore
	])('%s is said', (_what, parts, says) => {
		expect(found([{ ...report, ...parts }]).join(' ')).toMatch(says)
	})

	test('a role of rows that are no people is said, and one that is gone', () => {
		expect(found([{ id: 'e', kind: 'each', table: ITEMS, where: '', role: STORES, lines: [report] }])).toEqual([
			expect.stringContaining('hold no roles')
		])
		expect(found([people({ role: 99 }, [report])])).toEqual([expect.stringContaining('role that it goes by is gone')])
	})

	test('me is whoever presses, where it acts as them alone', () => {
		const toMe = { ...report, to: 'me' }
		const pressed = { start: { kind: 'button' as const, table: ITEMS }, steps: [toMe] }
		const says = (parts: object) =>
			checkApp(documentOfRoutines([routine({ ...pressed, ...parts })]), store.workspace()).filter(({ weight }) => weight === 'mistake').length // prettier-ignore
		expect([says({}), says({ acts: STORES }), found([toMe]).length]).toEqual([0, 1, 1])
	})

	test('what works is not refused', () => {
		expect(found([report, { ...report, id: 'q', by: { column: DUE, step: 'months' }, columns: [LEAST] }])).toEqual([])
	})
})

describe('a document', () => {
	const document = {
		...{ id: 'd', kind: 'document', to: "'held by'", subject: 'Sheet of {item}', body: '{cost}', opens: 's' },
		lines: [
			{ id: 'h', kind: 'heading', text: 'About {item}' },
			{ id: 'v', kind: 'values', columns: [ITEM, STOCK, COST] },
			{ id: 'w', kind: 'words', text: 'Noted: {note}' },
			{ id: 'l', kind: 'list', table: ORDERS, where: 'of = this', sort: [], columns: [31] }
		]
	} as const

	/** What is written of an item for somebody, where anything is. */
	function writtenOf(n: number, to: string): MadeReport | null {
		const each = { id: 'e', kind: 'each', table: ITEMS, where: `item = "${['', 'Shackle', 'Chain', 'Sealed'][n]}"` }
		release(store, [routine({ start: clock, steps: [{ ...each, lines: [{ ...document, to }] } as never] })])
		workOff(store, NOW + 3_600_000)
		const claimed = asWriter(store, () => claimReport(store, { worker: 'w', now: NOW + 3_600_000 }))
		return claimed && makeReport(store, { report: claimed.report, now: NOW + 3_600_000 })
	}

	test('holds what its reader sees of the row and of those that belong to it', () => {
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at, c30, c31) VALUES (1, 0, 0, 1, 5), (2, 0, 0, 2, 8)`)
		const made = writtenOf(1, '"wim@varrow.example"')
		expect(made).toMatchObject({ subject: 'Sheet of Shackle', body: '7', table: ITEMS, shown: null })
		expect(made?.link).toBe(`/app/1/s?row=${store.ids.toId(ITEMS, 1)}`)
		expect(made?.file).toMatchObject({
			...{ kind: 'pages', name: 'Sheet of Shackle' },
			pages: [
				{ kind: 'heading', text: 'Sheet of Shackle' },
				{ kind: 'heading', text: 'About Shackle' },
				{
					kind: 'values',
					values: [
						{ name: 'item', text: 'Shackle' },
						{ name: 'stock', text: '40' },
						{ name: 'cost', text: '7' }
					]
				},
				{ kind: 'words', text: 'Noted: ' },
				{ kind: 'rows', table: { rows: [['5']], more: 0 } }
			]
		})
	})

	test('leaves out columns and tables that its reader does not see', () => {
		const made = writtenOf(1, '"imke@varrow.example"')
		expect(made?.body).toBe('')
		expect(JSON.stringify(made)).not.toContain('cost')
		expect(made?.file).toMatchObject({ pages: [{}, {}, {}, { kind: 'words' }] })
	})

	test('of a row that its reader does not see is not written', () => {
		expect(writtenOf(3, '"wim@varrow.example"')).toBeNull()
	})

	test('as PDF has pages with their number, and reads no file and no address whatever stands in it', async () => {
		const rows = Array.from({ length: 120 }, (_each, i) => [`Čep Ω Ж ${i}`, String(i)])
		const heads = [{ name: 'What', isNumber: false }, { name: 'How many', isNumber: true }] // prettier-ignore
		const bytes = await makePdf({
			parts: [
				{ kind: 'heading', text: '/etc/passwd' },
				{ kind: 'words', text: 'file:///etc/passwd https://brig.example/x.png' },
				{ kind: 'values', values: [{ name: 'image', text: '/etc/hostname' }] },
				{ kind: 'rows', table: { title: 'All', heads, rows, foot: ['All', '7140'], more: 3, note: '' } },
				{ kind: 'picture', name: 'gone.jpg', sha: 'none', type: 'image/jpeg' }
			],
			...{ pictures: {}, foot: 'Varrow Sound Harbour Trust' }
		})
		expect(bytes.subarray(0, 5).toString('latin1')).toBe('%PDF-')
		expect(bytes.toString('latin1').match(/\/Type \/Page\n/g)?.length).toBeGreaterThan(2)
	})
})
