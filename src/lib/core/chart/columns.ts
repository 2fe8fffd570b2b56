/**
 * Columns of a chart as they stand over a scale: where each part begins and ends, in percent of the height, so that a page
 * draws them whatever its width. Ticks are d3-scale's.
 */
import { scaleLinear } from 'd3-scale'

export const OVER_A_SCALE = ['stacked', 'side by side', 'as lines', 'as areas', 'as shares'] as const
export type OverScale = (typeof OVER_A_SCALE)[number]

/** By column, then by series; null where nothing was measured. */
export type Values = readonly (readonly (number | null)[])[]

export interface ColumnPart {
	readonly series: number
	/** In percent of the height, from the foot. */
	readonly from: number
	readonly to: number
	readonly value: number
}

export interface LaidOut {
	readonly ticks: readonly { readonly at: number; readonly value: number }[]
	/** Where nought is. */
	readonly foot: number
	readonly columns: readonly { readonly parts: readonly ColumnPart[]; readonly top: number }[]
}

const ABOUT = 4

export function layOut(values: Values, arrangement: OverScale): LaidOut {
	const shown = arrangement === 'as shares' ? values.map(sharesOf) : values
	const isStacked = arrangement === 'stacked' || arrangement === 'as shares' || arrangement === 'as areas'
	const ends = shown.flatMap((parts) => (isStacked ? stackEnds(parts) : parts.filter((value) => value !== null)))
	// Shares end at a hundred, whatever their binary fractions add up to.
	const [least, most] = arrangement === 'as shares' ? [0, 100] : [Math.min(0, ...ends), Math.max(0, ...ends)]
	const scale = scaleLinear()
		.domain(least === most ? [0, 1] : [least, most])
		.range([0, 100])
		.nice(ABOUT)
	const at = (value: number) => Number(scale(value).toFixed(3))
	return {
		ticks: scale.ticks(ABOUT).map((value) => ({ at: at(value), value })),
		foot: at(0),
		columns: shown.map((parts, i) => {
			const placed = isStacked
				? stack(parts, arrangement === 'as areas')
				: parts.flatMap((value, series) => onFoot(value, series))
			const laid = placed.map(({ series, from, to }) => {
				const value = values[i]?.[series] ?? 0
				return { series, from: Math.min(at(from), at(to)), to: Math.max(at(from), at(to)), value }
			})
			return { parts: laid, top: Math.max(at(0), ...laid.map(({ to }) => to)) }
		})
	}
}

interface Placed {
	readonly series: number
	readonly from: number
	readonly to: number
}

function onFoot(value: number | null, series: number): Placed[] {
	return value === null ? [] : [{ series, from: 0, to: value }]
}

/** Each on those before it; what is below nought hangs down from there. `isWhole`: an area runs on where there is nothing. */
function stack(parts: readonly (number | null)[], isWhole = false): Placed[] {
	let [up, down] = [0, 0]
	return parts.flatMap((value, series) => {
		if ((value === null || value === 0) && !isWhole) return []
		const size = value ?? 0
		const from = size >= 0 ? up : down
		if (size >= 0) up += size
		else down += size
		return [{ series, from, to: from + size }]
	})
}

function stackEnds(parts: readonly (number | null)[]): number[] {
	return stack(parts).map(({ to }) => to)
}

/** Of a hundred; of nothing there is no share. */
function sharesOf(parts: readonly (number | null)[]): (number | null)[] {
	const whole = parts.reduce<number>((sum, value) => sum + Math.max(0, value ?? 0), 0)
	return parts.map((value) => (value === null || whole === 0 ? null : (100 * Math.max(0, value)) / whole))
}
