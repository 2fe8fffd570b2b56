/** Whoever has scrolled through a list keeps their place while others work. */
import { describe, expect, test } from 'vitest'
import type { WirePage } from '$lib/core/query/wire.ts'
import type { Sent } from '../../send.ts'
import { ListRows, type PageAsked } from './list-rows.svelte.ts'

const row = (n: number) => ({ id: `r${n}`, rev: 1, cells: {} })
const page = (from: number, to: number, next: string | null): WirePage => ({
	rows: Array.from({ length: to - from + 1 }, (_each, i) => row(from + i)),
	...{ next, columns: [] }
})
const NONE = { find: '', filters: [] }

function open() {
	const asked: PageAsked[] = []
	const answers: ((answer: Sent<WirePage>) => void)[] = []
	const rows = new ListRows((what) => {
		asked.push(what)
		return new Promise((resolve) => answers.push(resolve))
	})
	const answer = async (i: number, value: WirePage) => {
		answers[i]?.({ ok: true, value })
		await Promise.resolve()
		await Promise.resolve()
	}
	return { rows, asked, answer, refuse: (i: number, message: string) => answers[i]?.({ ok: false, refusal: { code: 'busy', message, details: {} } }) } // prettier-ignore
}

describe('a list', () => {
	test('shows the first page, then more', async () => {
		const { rows, asked, answer } = open()
		await rows.take(page(1, 50, 'a'), NONE)
		expect([rows.rows.length, rows.next]).toEqual([50, 'a'])
		const more = rows.more()
		expect(rows.busy).toBe(true)
		await answer(0, page(51, 100, null))
		await more
		expect([rows.rows.length, rows.next, rows.busy]).toEqual([100, null, false])
		expect(asked).toEqual([{ after: 'a', narrowing: NONE }])
	})

	test('reads all that is shown again when something changed, and shows it until then', async () => {
		const { rows, asked, answer } = open()
		await rows.take(page(1, 50, 'a'), NONE)
		const more = rows.more()
		await answer(0, page(51, 100, 'b'))
		await more
		const again = rows.take(page(1, 50, 'a'), NONE)
		expect(rows.rows).toHaveLength(100)
		expect(asked[1]).toEqual({ limit: 100, narrowing: NONE })
		await answer(1, { ...page(1, 100, 'b'), rows: [{ ...row(1), rev: 2 }, ...page(2, 100, 'b').rows] })
		await again
		expect([rows.rows.length, rows.rows[0]?.rev, rows.next]).toEqual([100, 2, 'b'])
	})

	test('begins anew under other filters', async () => {
		const { rows, asked } = open()
		await rows.take(page(1, 50, 'a'), NONE)
		const filters = [{ column: 3, is: 'equal' as const, text: 'Trot' }]
		await rows.take(page(1, 7, null), { find: '', filters })
		expect([rows.rows.length, rows.next]).toEqual([7, null])
		expect(asked).toEqual([])
	})

	test('looks for words, drops answers that were overtaken, and shows all again', async () => {
		const { rows, asked, answer } = open()
		await rows.take(page(1, 50, 'a'), NONE)
		const [first, second] = [rows.look('n'), rows.look('nh')]
		await answer(1, page(3, 4, null))
		await answer(0, page(1, 40, 'x'))
		await Promise.all([first, second])
		expect(asked.map(({ narrowing }) => narrowing.find)).toEqual(['n', 'nh'])
		expect(rows.rows.map(({ id }) => id)).toEqual(['r3', 'r4'])
		// What changed meanwhile is looked for again, not shown whole.
		const again = rows.take(page(1, 50, 'a'), NONE)
		await answer(2, page(3, 3, null))
		await again
		expect(rows.rows).toHaveLength(1)
		await rows.look('')
		expect(rows.rows).toHaveLength(50)
	})

	test('begins anew in another order, in which words are looked for too', async () => {
		const { rows, asked, answer } = open()
		await rows.take(page(1, 50, 'a'), NONE)
		const sort = { column: 4, descending: true }
		await rows.take(page(11, 60, 'b'), { ...NONE, sort })
		expect([rows.rows[0]?.id, rows.next, asked.length]).toEqual(['r11', 'b', 0])
		const looked = rows.look('n')
		await answer(0, page(20, 22, null))
		await looked
		expect(asked[0]?.narrowing).toEqual({ find: 'n', filters: [], sort })
		await rows.look('')
		expect(rows.rows[0]?.id).toBe('r11')
	})

	test('says what went wrong and keeps what it shows', async () => {
		const { rows, refuse } = open()
		await rows.take(page(1, 50, 'a'), NONE)
		const more = rows.more()
		refuse(0, 'Too much at once.')
		await more
		expect([rows.rows.length, rows.wrong, rows.busy]).toEqual([50, 'Too much at once.', false])
	})
})
