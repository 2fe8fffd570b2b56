/** Columns over a scale as a picture. */
import type { ShownChart } from '$lib/core/requests/shown-rows.ts'
import { areaOf } from './area.ts'
import { fillOf, HEIGHT, legendOf, PAINTS, ROOM, round, svgOf, WIDTH, words } from './svg-parts.ts'

export function chartAsSvg(line: ShownChart): string {
	const [wide, high] = [WIDTH - ROOM.left - ROOM.right, HEIGHT - ROOM.top - ROOM.bottom]
	const y = (at: number) => round(ROOM.top + high - (at / 100) * high)
	const step = wide / Math.max(1, line.bars.length)
	const x = (i: number, part = 0.5) => round(ROOM.left + step * (i + part))
	const end = ({ from, to }: { from: number; to: number }) => (to > line.foot ? to : from)
	const count = Math.max(1, line.series.length)
	const ticks = line.ticks.map(
		({ at, text }) =>
			`<path d="M${ROOM.left} ${y(at)}H${WIDTH - ROOM.right}" stroke="${at === line.foot ? '#16201b' : '#dfe3da'}"/>` +
			words(text, { x: ROOM.left - 10, y: y(at) + 5, anchor: 'end' })
	)
	const bars = line.bars.map((bar, i) => {
		const parts = bar.parts.map((part) => {
			if (line.as === 'as areas') return ''
			if (line.as === 'as lines')
				return `<circle cx="${x(i)}" cy="${y(end(part))}" r="5" fill="${PAINTS[part.series] ?? '#000'}"/>`
			const isAbreast = line.as === 'side by side'
			const [left, width] = isAbreast ? [0.12 + (0.76 * part.series) / count, 0.76 / count] : [0.22, 0.56]
			const box = `x="${x(i, left)}" y="${y(part.to)}" width="${round(step * width)}" height="${round(y(part.from) - y(part.to))}"`
			return `<rect ${box} fill="${fillOf(part.series)}" stroke="${PAINTS[part.series] ?? '#000'}"/>`
		})
		const total = bar.total === '' ? '' : words(bar.total, { x: x(i), y: y(bar.top) - 6, anchor: 'middle', bold: true })
		return parts.join('') + total + words(bar.label, { x: x(i), y: HEIGHT - ROOM.bottom + 22, anchor: 'middle' })
	})
	const lines =
		line.as === 'as lines'
			? Array.from({ length: count }, (_each, s) => lineOf(line, s, { x, y: (part) => y(end(part)) }))
			: []
	const areas =
		line.as === 'as areas'
			? Array.from(
					{ length: count },
					(_each, s) =>
						`<path d="${areaOf(line.bars, s, { x, y })}" fill="${fillOf(s)}" stroke="${PAINTS[s] ?? '#000'}"/>`
				)
			: []
	return svgOf(line, [...legendOf(line.series.map(({ label }) => label)), ...ticks, ...areas, ...lines, ...bars])
}

interface Ways {
	readonly x: (i: number) => number
	readonly y: (part: ShownChart['bars'][number]['parts'][number]) => number
}

function lineOf({ bars }: ShownChart, series: number, { x, y }: Ways): string {
	const at = (i: number) => bars[i]?.parts.find((part) => part.series === series)
	const path = bars.map((_bar, i) => {
		const part = at(i)
		return part ? `${at(i - 1) ? 'L' : 'M'}${x(i)} ${y(part)}` : ''
	})
	return `<path d="${path.join('')}" fill="none" stroke="${PAINTS[series] ?? '#000'}" stroke-width="2.5"/>`
}
