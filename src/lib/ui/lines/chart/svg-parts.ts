import type { Charted } from '$lib/core/requests/shown-rows.ts'
import { SAYS_PART } from '$lib/core/chart/left-out.ts'

/** What pictures of charts are drawn with: in the light, whatever the page is in. */
export const [WIDTH, HEIGHT] = [960, 480]
export const ROOM = { left: 90, right: 20, top: 80, bottom: 50 }
/** The paints of the page, as they are in the light. */
export const PAINTS = ['#1c6a4d', '#b98a3c', '#a33a2c', '#24567f', '#445049', '#16201b'] as const
/** Told apart without colour too: of what is not filled the hatching. */
const HATCHED = [false, true, false, true, true, true] as const

/** A whole picture, with its title over it; of how many rows, where these are not all. */
export function svgOf(line: Pick<Charted, 'title' | 'isPart'>, parts: readonly string[]): string {
	const title = line.isPart ? `${line.title}, ${SAYS_PART}` : line.title
	return [
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}" width="${WIDTH}" height="${HEIGHT}" font-family="sans-serif" font-size="15" fill="#16201b">`,
		`<title>${escape(title)}</title><defs>${PAINTS.map(hatching).join('')}</defs>`,
		`<rect width="${WIDTH}" height="${HEIGHT}" fill="#fff"/>`,
		words(title, { x: ROOM.left, y: 30, anchor: 'start', bold: true }),
		...parts,
		'</svg>'
	].join('')
}

/** What the parts are called, side by side under the title. */
export function legendOf(labels: readonly string[]): readonly string[] {
	return labels.map((label, i) => {
		const at = ROOM.left + i * 150
		const swatch = `<rect x="${at}" y="46" width="14" height="14" fill="${fillOf(i)}" stroke="${PAINTS[i] ?? '#000'}"/>`
		return swatch + words(label, { x: at + 20, y: 58, anchor: 'start' })
	})
}

export function fillOf(series: number): string {
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

export function words(text: string, { x, y, anchor, bold = false }: Set): string {
	return `<text x="${x}" y="${y}" text-anchor="${anchor}"${bold ? ' font-weight="700"' : ''}>${escape(text)}</text>`
}

function escape(text: string): string {
	return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
}

export function round(value: number): number {
	return Number(value.toFixed(1))
}
