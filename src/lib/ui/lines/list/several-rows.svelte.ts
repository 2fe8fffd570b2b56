/** Several rows of a list that are chosen to do one thing on all of them. */
import type { RowAction } from '$lib/core/requests/screens.ts'
import type { Press } from '$lib/core/requests/screen-doings.ts'

export class SeveralRows {
	/** Whether rows are being chosen; a tap on a row opens it otherwise. */
	isOn = $state(false)
	private ids = $state.raw<readonly string[]>([])
	/** The row that was chosen last: together with Shift all from there to the next one are. */
	private last: string | undefined

	has(id: string): boolean {
		return this.ids.includes(id)
	}

	/** `all`: the rows in their order. */
	choose(id: string, on: boolean, { all, isRange }: { all: readonly string[]; isRange: boolean }): void {
		const [one, other] = [all.indexOf(this.last ?? id), all.indexOf(id)]
		const range = isRange && one >= 0 ? all.slice(Math.min(one, other), Math.max(one, other) + 1) : [id]
		const others = this.ids.filter((each) => !range.includes(each))
		this.ids = on ? [...others, ...range] : others
		this.last = id
	}

	/** All of them, or none where all are. */
	chooseAll(all: readonly string[]): void {
		const isWhole = all.every((id) => this.ids.includes(id))
		this.ids = isWhole ? [] : all
	}

	end(): void {
		this.isOn = false
		this.ids = []
		this.last = undefined
	}
}

/** What pressing an action of a list asks for on one of its rows. */
export function pressOf({ id: line, tally, puts }: RowAction, row: string): Press {
	if (puts) return { kind: 'put', line, row }
	return tally === undefined ? { kind: 'press', line, row } : { kind: 'tally', line, row, less: tally === 'less' }
}
