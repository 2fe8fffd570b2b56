/** Days as a year planner has them, as a picture. */
import type { ShownDays } from '$lib/core/requests/shown-rows.ts'
import { HEIGHT, PAINTS, ROOM, round, svgOf, WIDTH, words } from './svg-parts.ts'

/** By depth; none has no fill. */
const SHARE = [0, 0.2, 0.45, 0.75, 1] as const

export function daysAsSvg(line: ShownDays): string {
	const { months } = line
	const [wide, high] = [
		(WIDTH - ROOM.left - ROOM.right) / 31,
		(HEIGHT - ROOM.top - ROOM.right) / Math.max(1, months.length)
	]
	const rows = months.map(({ label, days }, m) => {
		const y = ROOM.top + m * high
		const squares = days.map(({ depth, text }, d) => {
			const x = ROOM.left + d * wide
			const box = `x="${round(x + 1)}" y="${round(y + 1)}" width="${round(wide - 2)}" height="${round(high - 2)}"`
			const paint = `fill="${PAINTS[0]}" fill-opacity="${SHARE[depth] ?? 1}" stroke="#dfe3da"`
			const fill = depth > 2 ? '#fff' : '#16201b'
			return `<rect ${box} ${paint}/><g fill="${fill}" font-size="12">${words(text, { x: round(x + wide / 2), y: round(y + high / 2 + 4), anchor: 'middle' })}</g>`
		})
		return words(label, { x: ROOM.left - 10, y: round(y + high / 2 + 5), anchor: 'end' }) + squares.join('')
	})
	const numbers = Array.from({ length: 31 }, (_each, d) =>
		words(String(d + 1), { x: round(ROOM.left + (d + 0.5) * wide), y: ROOM.top - 8, anchor: 'middle' })
	)
	return svgOf(line, [...numbers, ...rows])
}
