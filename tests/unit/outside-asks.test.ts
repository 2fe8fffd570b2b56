/** Writing to somebody outside, and asking them by a link of their own: what leaves, what the link opens, and when it is over. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { answerOutside, readOutsideAsk } from '$lib/server/routines/answer-outside.ts'
import { cancelRun } from '$lib/server/routines/tend-runs.ts'
import { sealId } from '$lib/server/store/sealed-ids.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	asWriter,
	by,
	COST,
	CREW,
	DAY,
	documentOfRoutines,
	HELD_BY,
	IMKE,
	itemOf,
	ITEMS,
	messagesOf,
	NOTE,
	NOW,
	openStock,
	release,
	routine,
	runsOf,
	setItem,
	setNote,
	setStock,
	STOCK,
	STORES,
	tell,
	workOff
} from '../support/quay-stock.ts'

let store: Store
beforeEach(() => {
	store = openStock()
})

const TO = '"rope@chandlery.example"'
const write = { ...tell, to: TO, outside: 'an address outside' } as never
const ask = {
	...{ id: 'a', kind: 'ask', to: TO, columns: [STOCK, NOTE], outside: 'an address outside' },
	...{ subject: 'How many {item}?', body: 'We have {stock}.', ends: { many: 5, span: 'days' }, remind: { many: 2, span: 'days' } }, // prettier-ignore
	lines: [{ id: 'y', kind: 'set', column: 22, formula: '77' }]
} as never
const late = { id: 'e', kind: 'else', lines: [{ id: 'z', kind: 'set', column: 22, formula: '88' }] } as never

const mails = () =>
	store
		.prepare<{ email: string | null; subject: string; body: string; link: string | null }>(
			`SELECT to_email AS email, subject, body, link FROM message ORDER BY id`
		)
		.all()
const tokenOf = (link: string | null | undefined) => link?.slice('/answer/'.length) ?? ''
const read = (token: string, now = NOW) => readOutsideAsk(store, { token, now })
const answer = (token: string, typed: Record<number, string>, now = NOW) =>
	asWriter(store, () => answerOutside(store, { token, typed, now }))

function begin(steps: never[] = [ask, late], acts: number | undefined = STORES): number {
	const app = release(store, [routine({ steps, ...(acts === undefined ? {} : { acts }) })])
	setStock(store, 4)
	workOff(store)
	return app
}

describe('a message to an address outside', () => {
	test('leaves by mail, in the words of what its role sees, and stands in the Logbook', () => {
		begin([{ ...(write as object), subject: '{item} cost {cost}' } as never], CREW)
		expect(mails()).toMatchObject([{ email: 'rope@chandlery.example', subject: 'Shackle cost', body: '4 left of 25' }]) // prettier-ignore
		const [entry] = store.prepare(`SELECT kind, through, body FROM history ORDER BY seq DESC LIMIT 1`).all()
		expect(entry).toMatchObject({ kind: 'write outside', through: 'routine Low stock', body: '{"to":"rope@chandlery.example"}' }) // prettier-ignore
		expect(runsOf(store)).toMatchObject([{ state: 'done' }])
	})

	test('leaves a hundred times a day at most; what is beyond waits with whoever released it', () => {
		const add = store.db.prepare(`INSERT INTO message (message_id, person, to_name, to_email, subject, body, made_at) VALUES (?, 0, '', 'rope@chandlery.example', '', '', ?)`) // prettier-ignore
		for (let i = 0; i < 100; i++) add.run(`m${i}`, NOW - 1_000)
		begin([write])
		expect(runsOf(store)).toMatchObject([{ state: 'given up', error: expect.stringContaining('A hundred letters went to rope@chandlery.example') }]) // prettier-ignore
		expect(mails()).toHaveLength(100)
	})

	test('goes nowhere where that is not said, and to people here as ever', () => {
		begin([{ ...tell, to: TO } as never, { ...(write as object), id: 'i', to: '"imke@varrow.example"' } as never])
		expect(messagesOf(store).map(({ person }) => person)).toEqual([IMKE])
		expect(mails()).toMatchObject([{ email: null }])
	})

	test.each(['"nobody"', '"a@b"', '"x@y.example, z@y.example"', '"Name <x@y.example>"', 'ITEM'])(
		'%s is no address',
		(to) => {
			begin([{ ...(write as object), to } as never])
			expect(mails()).toEqual([])
		}
	)
})

describe('somebody outside who is asked', () => {
	test('sees by their link the words and what is asked, and nothing else', () => {
		begin()
		const [mail] = mails()
		expect(mail).toMatchObject({ email: 'rope@chandlery.example', subject: 'How many Shackle?', body: 'We have 4.' })
		expect(tokenOf(mail?.link)).toMatch(/^[\w-]{32}$/)
		expect(read(tokenOf(mail?.link))).toEqual({
			...{ workspace: 'Scratch', subject: 'How many Shackle?', body: 'We have 4.', endsAt: NOW + 5 * DAY },
			columns: [
				{ id: STOCK, name: 'stock', as: 'number', unit: '', choices: [], value: '4' },
				{ id: NOTE, name: 'note', as: 'line', unit: '', choices: [], value: '' }
			]
		})
		// No token is kept, and looking does nothing.
		expect(JSON.stringify(store.prepare('SELECT * FROM ask_link').all())).not.toContain(tokenOf(mail?.link))
		expect(read('x'.repeat(32))).toBe(null)
		expect(runsOf(store)).toMatchObject([{ state: 'waiting' }])
	})

	test('answers once, as the role, and the routine goes on', () => {
		begin()
		const token = tokenOf(mails()[0]?.link)
		answer(token, { [STOCK]: '12', [NOTE]: ' on Friday ' })
		workOff(store)
		expect(itemOf(store, 1)).toMatchObject({ stock: 12, note: 'on Friday', least: 77 })
		const kinds = store.prepare(`SELECT through, person FROM history WHERE through LIKE 'answer%'`).all()
		expect(kinds).toEqual([{ through: 'answer to Low stock', person: null }])
		expect(() => answer(token, { [STOCK]: '13' })).toThrow('This link is over')
		expect(read(token)).toBe(null)
		expect(itemOf(store, 1)['stock']).toBe(12)
	})

	test.each([
		['nothing', {}, 'Nothing is filled in yet'],
		['a word for a number', { [STOCK]: 'many' }, 'stock: '],
		['a part of it wrong', { [NOTE]: 'ok', [STOCK]: '1.5' }, 'stock: ']
	])('who sends %s hears why, and nothing goes in', (_what, typed, says) => {
		begin()
		const token = tokenOf(mails()[0]?.link)
		expect(() => answer(token, typed)).toThrow(says)
		expect(itemOf(store, 1)).toMatchObject({ stock: 4, note: null })
		expect(read(token)).not.toBe(null)
	})

	test('cannot write what was not asked for', () => {
		begin()
		answer(tokenOf(mails()[0]?.link), { [STOCK]: '12', [COST]: '1', [HELD_BY]: '2' })
		const [row] = store.prepare('SELECT c25 AS held, c26 AS cost FROM t2 WHERE n = 1').all()
		expect(row).toEqual({ held: 3, cost: 7 })
	})

	test('is reminded by a further link, and both work until one is used', () => {
		begin()
		workOff(store, NOW + 2 * DAY)
		const [first, second] = mails()
		expect(second).toMatchObject({ email: 'rope@chandlery.example', subject: 'Reminder: How many Shackle?' })
		expect(tokenOf(second?.link)).not.toBe(tokenOf(first?.link))
		const now = NOW + 2 * DAY
		expect([read(tokenOf(first?.link), now), read(tokenOf(second?.link), now)]).not.toContain(null)
		answer(tokenOf(first?.link), { [STOCK]: '9' }, now)
		expect(read(tokenOf(second?.link), now)).toBe(null)
	})

	test('who does not answer in time finds the link over, and "Otherwise" is done', () => {
		begin()
		const token = tokenOf(mails()[0]?.link)
		workOff(store, NOW + 6 * DAY)
		expect(itemOf(store, 1)['least']).toBe(88)
		expect(() => answer(token, { [STOCK]: '9' }, NOW + 6 * DAY)).toThrow('This link is over')
	})

	test('finds the link over once the run is cancelled, the role is given no more, or the row is not its to see', () => {
		const app = begin()
		const token = tokenOf(mails()[0]?.link)
		setItem(store, 1, [{ column: 20, value: 'Sealed' }])
		expect(read(token)).toBe(null)
		setItem(store, 1, [{ column: 20, value: 'Shackle' }])
		expect(read(token)).not.toBe(null)
		const [id] = store.prepare<number>('SELECT id FROM run').pluck().all()
		asWriter(store, () => cancelRun(store, { app, run: sealId(store, 'run', id ?? 0), ...by }))
		expect(read(token)).toBe(null)
		expect(() => answer(token, { [STOCK]: '9' })).toThrow('This link is over')
	})

	test('is asked for nothing that the role may not change', () => {
		begin([{ ...(ask as object), columns: [COST] } as never, late], CREW)
		expect(runsOf(store)).toMatchObject([{ state: 'given up', error: expect.stringContaining('may not change cost') }])
		expect(mails()).toEqual([])
	})
})

describe('before it is released', () => {
	const found = (steps: never[], acts?: number) =>
		checkApp(documentOfRoutines([routine({ steps, ...(acts === undefined ? {} : { acts }) })]), store.workspace())
			.filter(({ place }) => place.startsWith('Routine'))
			.map(({ weight, message }) => `${weight}: ${message}`)
	test('acting as nobody is refused', () => {
		expect(found([write]).join()).toContain('mistake: It may go outside: say at the start as which role it acts.')
	})
	test('what may leave is listed, and so is what may be filled in', () => {
		expect(found([ask, late], STORES)).toEqual([
			`remark: Its words may leave the workspace, for whoever ${TO} names, with what the role sees in them.`,
			'remark: stock can be seen and filled in by whoever has the link.',
			'remark: note can be seen and filled in by whoever has the link.'
		])
	})
	test('a reference is not asked outside', () => {
		expect(found([{ ...(ask as object), columns: [HELD_BY] } as never, late], STORES).join()).toContain('held by cannot be filled in from outside') // prettier-ignore
	})
	test('the words are those of another step', () => {
		expect(found([setNote('"x"') as never], STORES)).toEqual([])
		expect(ITEMS).toBe(2)
	})
})
