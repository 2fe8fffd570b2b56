/** What is found by a few letters, of all that is open to somebody. */
import type { WireRow } from '../query/wire.ts'
import type { ShownColumn } from './shown-column.ts'

interface Place {
	/** What it belongs to, in words. */
	readonly where: string
	readonly href: string
}

export type Found =
	| (Place & { readonly kind: 'app' | 'screen' | 'table' | 'column' | 'person'; readonly title: string })
	/** Shown as its list does. */
	| (Place & { readonly kind: 'row'; readonly columns: readonly ShownColumn[]; readonly row: WireRow })
