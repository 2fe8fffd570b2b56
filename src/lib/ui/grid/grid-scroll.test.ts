import { describe, expect, test } from 'vitest'
import { GridScroll, ROW } from './grid-scroll.svelte.ts'

function scrollOf(count: number, height = 10 * ROW) {
	const box = { scrollTop: 0, scrollLeft: 0, clientWidth: 300, focus() {} }
	const edges = { frozen: 1, lefts: [50, 150, 250, 350, 450] }
	const scroll = new GridScroll(
		() => count,
		() => edges
	)
	scroll.box = box as unknown as HTMLElement
	scroll.height = height
	return { scroll, box }
}

const wheel = (deltaY: number) => ({ deltaY, ctrlKey: false, preventDefault() {} }) as WheelEvent

describe('a list that is laid out whole', () => {
	const { scroll, box } = scrollOf(1_000)

	test('a row is as far down as all rows before it, and no scroll goes past the last', () => {
		scroll.to(300)
		expect([scroll.first, box.scrollTop, scroll.offset]).toEqual([300, 300 * ROW, 300 * ROW])
		scroll.to(5_000)
		expect(scroll.first).toBe(1_000 - scroll.visible + 1)
		scroll.to(-5)
		expect(scroll.first).toBe(0)
	})

	test('the bar says which row is first; the wheel is the browser’s own', () => {
		box.scrollTop = 12 * ROW + 7
		scroll.onscroll()
		expect([scroll.first, scroll.slots.length, scroll.slots[0]]).toEqual([12, scroll.visible, 12])
		scroll.onwheel(wheel(100))
		expect(scroll.first).toBe(12)
	})
})

describe('a list longer than a browser lays out', () => {
	const { scroll, box } = scrollOf(2_000_000)

	test('is laid out shorter, and its bar spans all of it', () => {
		expect([scroll.scaled, scroll.pixels]).toEqual([true, 15_000_000])
		box.scrollTop = scroll.pixels - scroll.height
		scroll.onscroll()
		expect(scroll.first).toBe(2_000_000 - scroll.visible + 1)
		expect(scroll.slots.at(-1)).toBe(1_999_999)
	})

	test('rows are drawn where the box is scrolled to, not where they would lie', () => {
		scroll.to(1_000_000)
		expect(scroll.offset).toBe(box.scrollTop)
		expect(scroll.offset).toBeLessThan(15_000_000)
		box.scrollTop += 400
		scroll.onscroll()
		expect(scroll.offset).toBe(box.scrollTop)
	})

	test('a turn of the wheel moves by rows', () => {
		scroll.to(500)
		scroll.onwheel(wheel(3 * ROW))
		expect(scroll.first).toBe(503)
		scroll.onwheel(wheel(-1))
		expect(scroll.first).toBe(502)
	})
})

describe('a cell that is gone to comes into sight', () => {
	test.each([
		['above', 40, 5, 5],
		['below', 0, 30, 30 - 11 + 3],
		['in sight already', 10, 12, 10]
	])('%s', async (_where, first, row, wanted) => {
		const { scroll } = scrollOf(1_000)
		scroll.to(first)
		await scroll.reveal({ row, column: 1 })
		expect(scroll.first).toBe(wanted)
	})

	test('to the right, and to the left from under the columns that stand still', async () => {
		const { scroll, box } = scrollOf(1_000)
		await scroll.reveal({ row: 0, column: 3 })
		expect(box.scrollLeft).toBe(450 - 300)
		await scroll.reveal({ row: 0, column: 1 })
		expect(box.scrollLeft).toBe(0)
	})
})
