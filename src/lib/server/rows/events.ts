import type { Table } from '$lib/core/table/types.ts'
import type { Store } from '../store.ts'
import type { ChangeContext } from './change.ts'

export interface RowEvent {
	readonly kind: 'added' | 'changed' | 'removed'
	readonly table: Table
	readonly n: number
}

export function raiseEvents(_store: Store, _event: RowEvent, _context: ChangeContext): void {}
