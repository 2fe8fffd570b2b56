/** The ways in which a line moves among others, with their keys. */
import type { Direction } from '$lib/core/app/lines/tree.ts'

export interface Way {
	readonly to: Direction
	/** Pressed together with Alt. */
	readonly key: string
	readonly sign: string
}

/** Where lines stand one below the other and hold none. */
export const FLAT_WAYS: readonly Way[] = [
	{ to: 'up', key: 'ArrowUp', sign: '↑' },
	{ to: 'down', key: 'ArrowDown', sign: '↓' }
]

/** Where lines hold lines. */
export const WAYS: readonly Way[] = [
	...FLAT_WAYS,
	{ to: 'in', key: 'ArrowRight', sign: '→' },
	{ to: 'out', key: 'ArrowLeft', sign: '←' }
]
