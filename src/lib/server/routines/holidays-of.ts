import type { Store } from '../store/store.ts'

/** The days on which nobody works in this workspace, as ISO dates. */
export function holidaysOf(store: Store): ReadonlySet<string> {
	const { document } = store.workspace()
	const known = KNOWN.get(document) ?? new Set((document.holidays ?? []).map(({ day }) => day))
	KNOWN.set(document, known)
	return known
}

const KNOWN = new WeakMap<object, ReadonlySet<string>>()
