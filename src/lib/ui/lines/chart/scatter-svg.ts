/** Dots at two numbers, as a picture. */
import type { ShownScatter } from '$lib/core/requests/shown-rows.ts'
import { fillOf, HEIGHT, legendOf, PAINTS, ROOM, round, svgOf, WIDTH, words } from './svg-parts.ts'

export function scatterAsSvg(line: ShownScatter): string {
	const { across, up, series, dots } = line
	const [wide, high] = [WIDTH - ROOM.left - ROOM.right, HEIGHT - ROOM.top - ROOM.bottom]
	const x = (at: number) => round(ROOM.left + (at / 100) * wide)
	const y = (at: number) => round(ROOM.top + high - (at / 100) * high)
	const levels = up.ticks.map(
		({ at, text }) =>
			`<path d="M${ROOM.left} ${y(at)}H${WIDTH - ROOM.right}" stroke="#dfe3da"/>` +
			words(text, { x: ROOM.left - 10, y: y(at) + 5, anchor: 'end' })
	)
	const uprights = across.ticks.map(({ at, text }) =>
		words(text, { x: x(at), y: HEIGHT - ROOM.bottom + 20, anchor: 'middle' })
	)
	const marks = dots.map(
		(dot) =>
			`<circle cx="${x(dot.x)}" cy="${y(dot.y)}" r="${dot.radius}" fill="${fillOf(dot.series)}" stroke="${PAINTS[dot.series] ?? '#000'}"/>`
	)
	const names = [
		words(up.label, { x: ROOM.left, y: ROOM.top - 10, anchor: 'start', bold: true }),
		words(across.label, { x: WIDTH - ROOM.right, y: HEIGHT - 10, anchor: 'end', bold: true })
	]
	return svgOf(line, [...legendOf(series.map(({ label }) => label)), ...levels, ...uprights, ...marks, ...names])
}
