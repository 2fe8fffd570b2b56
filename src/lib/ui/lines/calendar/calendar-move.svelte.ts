/** An entry on its way to another day: dragged there, or by a date that is typed; what would refuse it is asked before. */
import type { ScreenPath } from '$lib/core/requests/screens.ts'
import type { Move } from '$lib/core/requests/screen-doings.ts'
import type { ShownCalendar, ShownDay, ShownDayEntry } from '$lib/core/requests/shown-rows.ts'
import { addDays, toDayNumber } from '$lib/core/schedule/calendar.ts'
import { send } from '../../send.ts'
import type { PressNote } from '../press-note.svelte.ts'

/** The day under the pointer, of those that stand side by side in an element. */
export function dayUnder(
	{ clientX, currentTarget }: DragEvent & { currentTarget: HTMLElement },
	days: readonly ShownDay[]
): string {
	const { left, width } = currentTarget.getBoundingClientRect()
	const at = Math.floor(((clientX - left) / width) * days.length)
	return days[Math.min(Math.max(at, 0), days.length - 1)]?.date ?? ''
}

type Line = ShownCalendar & { readonly id: string }

export class CalendarMove {
	/** The entry that is dragged, or whose day is asked for. */
	held = $state.raw<{ readonly entry: ShownDayEntry; readonly isDragged: boolean } | undefined>()
	/** The day that it would begin on, while it is dragged over the days. */
	over = $state('')
	#moves = $state.raw<readonly Move[]>([])
	/** How many days after its beginning it was taken. */
	#grip = 0
	readonly #of: () => { line: Line; path: ScreenPath }
	readonly #note: PressNote

	constructor(of: () => { line: Line; path: ScreenPath }, note: PressNote) {
		this.#of = of
		this.#note = note
	}

	/** The last day that it would take. */
	readonly overTo = $derived.by(() => {
		const { held, over } = this
		if (!held || over === '') return ''
		return addDays(over, toDayNumber(held.entry.to) - toDayNumber(held.entry.from)) ?? over
	})

	/** Why the day that it is over would be refused. */
	readonly refused = $derived(this.#moves.find(({ to }) => to === this.over)?.refused ?? null)

	/** `on`: the day by which it was taken. */
	drag(entry: ShownDayEntry, on: string): void {
		const { weeks } = this.#of().line
		this.held = { entry, isDragged: true }
		this.#grip = Math.max(0, toDayNumber(on) - toDayNumber(entry.from))
		this.over = ''
		const days = weeks.flatMap(({ days: each }) => each.map(({ date }) => date))
		void this.#ask(
			entry,
			days.flatMap((day) => this.#beginFor(day) ?? [])
		)
	}

	/** Over days that stand side by side in an element: where it would begin then. */
	dragOver(event: DragEvent & { currentTarget: HTMLElement }, days: readonly ShownDay[]): void {
		if (!this.held?.isDragged) return
		this.over = this.#beginFor(dayUnder(event, days)) ?? ''
		// So the browser knows that it can be dropped here.
		if (this.refused === null) event.preventDefault()
	}

	async drop(): Promise<void> {
		const { held, over, refused } = this
		this.leave()
		if (held && over !== '' && refused === null) await this.#move(held.entry, over)
	}

	/** To a day that is typed. */
	choose(entry: ShownDayEntry): void {
		this.held = { entry, isDragged: false }
		this.over = ''
		this.#moves = []
	}

	async tryDay(day: string): Promise<void> {
		this.over = day
		if (this.held) await this.#ask(this.held.entry, [day])
	}

	leave(): void {
		this.held = undefined
		this.over = ''
		this.#moves = []
	}

	#beginFor(day: string): string | undefined {
		return addDays(day, -this.#grip)
	}

	/** It changes nothing, so nobody is told. */
	async #ask(entry: ShownDayEntry, to: readonly string[]): Promise<void> {
		this.#moves = []
		const { line, path } = this.#of()
		const answer = await send('POST', `${path}/do`, { kind: 'moves', line: line.id, row: entry.row.id, to: [...to] })
		if (this.held?.entry !== entry) return
		if (answer.ok) this.#moves = answer.value
		else this.#note.say(answer.refusal.message)
	}

	async #move(entry: ShownDayEntry, to: string): Promise<void> {
		if (to === entry.from) return
		const { line, path } = this.#of()
		const day = line.weeks.flatMap(({ days }) => days).find(({ date }) => date === to)
		await this.#note.press(path, { kind: 'move', line: line.id, row: entry.row.id, to }, `moved to ${day?.says ?? to}`)
	}
}
