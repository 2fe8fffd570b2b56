/** Several rows of a list that are chosen to do one thing on all of them. */
import { SvelteSet } from 'svelte/reactivity'
import type { RowAction } from '$lib/core/requests/screens.ts'
import type { Press } from '../press-note.svelte.ts'

export class SeveralRows {
	/** Whether rows are being chosen; a tap on a row opens it otherwise. */
	isOn = $state(false)
	private readonly ids = new SvelteSet<string>()
	/** The row that was chosen last: together with Shift all from there to the next one are. */
	private last: string | undefined

	has(id: string): boolean {
		return this.ids.has(id)
	}

	/** `all`: the rows in their order. */
	choose(id: string, on: boolean, { all, isRange }: { all: readonly string[]; isRange: boolean }): void {
		const [one, other] = [all.indexOf(this.last ?? id), all.indexOf(id)]
		const range = isRange && one >= 0 ? all.slice(Math.min(one, other), Math.max(one, other) + 1) : [id]
		for (const each of range) {
			if (on) this.ids.add(each)
			else this.ids.delete(each)
		}
		this.last = id
	}

	/** All of them, or none where all are. */
	chooseAll(all: readonly string[]): void {
		const isWhole = all.every((id) => this.ids.has(id))
		this.ids.clear()
		if (!isWhole) for (const id of all) this.ids.add(id)
	}

	end(): void {
		this.isOn = false
		this.ids.clear()
		this.last = undefined
	}
}

/** What pressing an action of a list asks for on one of its rows. */
export function pressOf({ id: line, tally, puts }: RowAction, row: string): Press {
	if (puts) return { kind: 'put', line, row }
	return tally === undefined ? { kind: 'press', line, row } : { kind: 'tally', line, row, less: tally === 'less' }
}
