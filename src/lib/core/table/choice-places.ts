import { textKey } from '../text/key.ts'

/**
 * Where each choice of a list stands in another, counted from 1 as they are kept: by its word, wherever that went; by its
 * place where a new word stands there instead (it was renamed); null where it is gone.
 */
export function placesOf(was: readonly string[], now: readonly string[]): ReadonlyMap<number, number | null> {
	const keys = now.map(textKey)
	const old = new Set(was.map(textKey))
	return new Map(
		was.map((choice, i) => {
			const at = keys.indexOf(textKey(choice))
			const renamed = keys[i] !== undefined && !old.has(keys[i])
			return [i + 1, at >= 0 ? at + 1 : renamed ? i + 1 : null] as const
		})
	)
}
