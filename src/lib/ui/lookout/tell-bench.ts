import type { Sights } from './sights.ts'

/** What a frame of the Lookout tells the Bench round it. */
export type ToldByFrame =
	/** The line that is pointed at. */
	| { readonly tinShedLine: string }
	/** Something was done on the copy. */
	| { readonly tinShedTried: true }
	/** What the person looked as gets of the screen that is shown, and by which version of the draft; null where that failed. */
	| { readonly tinShedSees: Sights; readonly tinShedDraft: number | null }

/** Asks a frame to read its screen again. */
export const READ_AGAIN = 'tin shed: read again'
/** Tell a frame that it has no signal, or has one again. */
export const NO_SIGNAL = 'tin shed: no signal'
export const SIGNAL = 'tin shed: signal'

/** A page that stands in no frame has nobody to tell. */
export function tellBench(told: ToldByFrame): void {
	if (window.parent !== window) window.parent.postMessage(told, window.location.origin)
}
