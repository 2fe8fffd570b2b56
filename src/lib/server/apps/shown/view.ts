/** What a screen is shown from: whose eyes, which document, which row, and what its reader narrowed down. */
import type { AppDocument, Screen } from '$lib/core/app/document.ts'
import type { ScreenLine } from '$lib/core/app/lines/all.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Narrowing, ShownLine } from '$lib/core/requests/screens.ts'
import type { Actor, Standing } from '../../rights/rights-of-actor.ts'
import type { Store } from '../../store/store.ts'
import { isFor } from '../for-whom.ts'

export interface View {
	readonly store: Store
	readonly standing: Standing
	readonly document: AppDocument
	readonly request: ViewRequest
	/** The rows that are chosen on the screen, as far as this person sees them. */
	readonly here: Here
	/** For lines that hold others: whether one of these holds something, and what is shown of them. */
	readonly inner: {
		holdsSomething(lines: readonly ScreenLine[]): boolean
		show(lines: readonly ScreenLine[]): ShownLine[]
		showsRow(lines: readonly ScreenLine[]): boolean
	}
}

export interface ViewRequest {
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
	/** The row that the screen shows. */
	readonly row?: string | undefined
	/** The rows that are chosen on the screen, by name. */
	readonly held?: Readonly<Record<string, string>> | undefined
	/** By the list's line. */
	readonly narrowed?: Readonly<Record<string, Narrowing>> | undefined
	/** How many rows of a list are shown already, by its line. */
	readonly shown?: Readonly<Record<string, number>> | undefined
	/** Of what is no frame, only these lines; all, where it is left out. */
	readonly only?: ReadonlySet<string> | undefined
}

/** What the server does with a kind of line. */
export interface ShownAs<L> {
	/** Whether it alone is worth opening its screen for. */
	holdsSomething(line: L, view: View): boolean
	/** What its reader gets of it; nothing where it is not offered. */
	show(line: L, view: View): ShownLine[]
}

export function tableOf({ store }: View, id: number): Table | undefined {
	return store.workspace().catalogue.tables.get(id)
}

/** A screen of the app, where it is there and for this person. */
export function screenFor(id: string, { document, standing }: View): Screen | undefined {
	return document.screens.find((screen) => screen.id === id && isFor(screen, standing))
}
