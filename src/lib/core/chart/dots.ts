/** Dots of two numbers each as they stand over two scales, in percent; a dot for many rows is larger, by its area. */
import { scaleLinear } from 'd3-scale'

export interface Dot {
	readonly across: number
	readonly up: number
	readonly rows: number
}

export interface LaidDots {
	readonly across: readonly Tick[]
	readonly up: readonly Tick[]
	/** In the order in which they were given. */
	readonly dots: readonly { readonly x: number; readonly y: number; readonly radius: number }[]
}

export interface Tick {
	readonly at: number
	readonly value: number
}

const ABOUT = 5
/** Radii in CSS pixels: of one row where it need not be smaller, and of the most rows. */
const [ALONE, LARGEST] = [4, 14]
/** What can still be seen and pressed. */
const SMALLEST = 3

export function layOutDots(dots: readonly Dot[]): LaidDots {
	const across = scaleOver(dots.map((dot) => dot.across))
	const up = scaleOver(dots.map((dot) => dot.up))
	const most = Math.max(1, ...dots.map(({ rows }) => rows))
	const largest = Math.min(LARGEST, ALONE * Math.sqrt(most))
	const radius = (rows: number) => Math.max(SMALLEST, largest * Math.sqrt(rows / most))
	return {
		across: across.ticks(ABOUT).map((value) => ({ at: round(across(value)), value })),
		up: up.ticks(ABOUT).map((value) => ({ at: round(up(value)), value })),
		dots: dots.map((dot) => ({ x: round(across(dot.across)), y: round(up(dot.up)), radius: round(radius(dot.rows)) }))
	}
}

function scaleOver(values: readonly number[]) {
	const [least, most] = [Math.min(...values), Math.max(...values)]
	const ends = values.length === 0 ? [0, 1] : least === most ? [least - 1, most + 1] : [least, most]
	return scaleLinear().domain(ends).range([0, 100]).nice(ABOUT)
}

function round(value: number): number {
	return Number(value.toFixed(2))
}
