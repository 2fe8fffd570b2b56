/** What is found by a few letters, of all that is open to somebody. */
import type { WireRow } from '../query/wire.ts'
import type { ShownColumn } from './shown-column.ts'

interface Place {
	/** What it belongs to, in words. */
	readonly where: string
	readonly href: string
}

export type Found =
	| (Place & { readonly kind: 'app' | 'screen' | 'person' | 'table' | 'column'; readonly title: string })
	/** Known by what stands in its first column. */
	| (Place & { readonly kind: 'row'; readonly column: ShownColumn; readonly row: WireRow })
