/** The step that begins a sign-off. Opening one lies above this folder, and is told here by whoever puts the writer together. */
import { AppError } from '$lib/core/app-error.ts'
import type { Signoff } from '$lib/core/app/document.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { StepOf } from '$lib/core/routine/routine.ts'
import { readRelease } from '../releases/live.ts'
import type { Store } from '../store/store.ts'
import { rowOf, type StepNow, type StepResult } from './step-now.ts'

export interface SignoffToBegin {
	readonly app: number
	readonly signoff: Signoff
	readonly table: Table
	readonly n: number
	/** 0 where a clock, or another program, led to it. */
	readonly askedBy: number
	readonly now: number
}

let open: (store: Store, asked: SignoffToBegin) => void = () => {
	throw new Error('Cannot begin a sign-off: nobody was registered to open one')
}

/** Says who opens them. Called where the writer is put together. */
export function openSignoffsBy(opener: typeof open): void {
	open = opener
}

/** One that is open on the row already stays. */
export function beginSignoff({ signoff: id }: StepOf<'signoff'>, now: StepNow): StepResult {
	const { store, app, release, by } = now
	const signoff = readRelease(store, app, release).signoffs.find((each) => each.id === id)
	if (!signoff) throw new AppError('invalid', 'The sign-off that it begins is gone.')
	const { table, n } = rowOf(now)
	open(store, { app, signoff, table, n, askedBy: by ?? 0, now: now.now })
	return { outcome: { kind: 'done', many: 1 }, cameTo: `${signoff.name} was begun` }
}
