/** A chart as a picture that can be put into a letter: in the light, whatever the page is in. */
import type { ShownChart } from '$lib/core/requests/shown-rows.ts'

const [WIDTH, HEIGHT] = [960, 480]
const ROOM = { left: 90, right: 20, top: 80, bottom: 50 }
/** The paints of the page, as they are in the light. */
const PAINTS = ['#1c6a4d', '#b98a3c', '#a33a2c', '#24567f', '#445049', '#16201b'] as const
/** Told apart without colour too: of what is not filled the hatching. */
const HATCHED = [false, true, false, true, true, true] as const

/** Hands a file of it to whoever presses. */
export async function takePicture(line: ShownChart, format: 'SVG' | 'PNG'): Promise<void> {
	const svg = chartAsSvg(line)
	const link = document.createElement('a')
	const file = format === 'SVG' ? new Blob([svg], { type: 'image/svg+xml' }) : await asPng(svg)
	link.href = URL.createObjectURL(file)
	link.download = `${line.title}.${format.toLowerCase()}`
	link.click()
	URL.revokeObjectURL(link.href)
}

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
	const legend = line.series.map(({ label }, i) => {
		const at = ROOM.left + i * 150
		const swatch = `<rect x="${at}" y="46" width="14" height="14" fill="${fillOf(i)}" stroke="${PAINTS[i] ?? '#000'}"/>`
		return swatch + words(label, { x: at + 20, y: 58, anchor: 'start' })
	})
	return [
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" font-family="sans-serif" font-size="15" fill="#16201b">`,
		`<title>${escape(line.title)}</title><defs>${PAINTS.map(hatching).join('')}</defs>`,
		`<rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>`,
		words(line.title, { x: ROOM.left, y: 30, anchor: 'start', bold: true }),
		...legend,
		...ticks,
		...lines,
		...bars,
		'</svg>'
	].join('')
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

function fillOf(series: number): string {
	return HATCHED[series] ? `url(#hatched-${series})` : (PAINTS[series] ?? '#000')
}

function hatching(paint: string, i: number): string {
	const turn = [0, 45, 0, 135, 90, 0][i] ?? 0
	return `<pattern id="hatched-${i}" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(${turn})"><rect width="6" height="6" fill="#fff"/><rect width="2" height="6" fill="${paint}"/></pattern>`
}

interface Set {
	readonly x: number
	readonly y: number
	readonly anchor: 'start' | 'middle' | 'end'
	readonly bold?: boolean
}

function words(text: string, { x, y, anchor, bold = false }: Set): string {
	return `<text x="${x}" y="${y}" text-anchor="${anchor}"${bold ? ' font-weight="700"' : ''}>${escape(text)}</text>`
}

function escape(text: string): string {
	return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
}

function round(value: number): number {
	return Number(value.toFixed(1))
}

/** Drawn twice as fine as the screen. */
async function asPng(svg: string): Promise<Blob> {
	const picture = new Image()
	// As a data address: the policy of pages lets pictures come from no other place that a script makes.
	picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
	await picture.decode()
	const canvas = new OffscreenCanvas(2 * WIDTH, 2 * HEIGHT)
	canvas.getContext('2d')?.drawImage(picture, 0, 0, 2 * WIDTH, 2 * HEIGHT)
	return canvas.convertToBlob({ type: 'image/png' })
}
