import { invalidateAll } from '$app/navigation'
import { countOf } from '$lib/core/text/count.ts'
import type { AccessSheet } from '$lib/core/requests/access.ts'
import type { LineValue } from '$lib/core/sentence/types.ts'
import { send } from '../send.ts'

/** The lines of one table while somebody writes them, what they would come to, and the way back. */
export class AccessDraft {
	readonly #table: number
	readonly #saved: () => AccessSheet
	#asked = 0

	lines: readonly LineValue[]
	/** What the lines as they stand would come to. */
	preview: AccessSheet
	past = $state.raw<readonly (readonly LineValue[])[]>([])
	said = $state('')
	wrong = $state('')

	readonly isDirty = $derived.by(() => JSON.stringify(this.lines) !== JSON.stringify(this.#saved().lines))

	/** @param saved the sheet as it is in force */
	constructor(table: number, saved: () => AccessSheet) {
		this.#table = table
		this.#saved = saved
		this.lines = $state.raw(saved().lines)
		this.preview = $state.raw(saved())
	}

	change(next: readonly LineValue[]): void {
		this.past = [...this.past, this.lines]
		this.#put(next)
	}

	move(at: number, by: -1 | 1): void {
		const to = at + by
		if (to < 0 || to >= this.lines.length) return
		const next = [...this.lines]
		const [line] = next.splice(at, 1)
		if (line) next.splice(to, 0, line)
		this.change(next)
	}

	undo(): void {
		const last = this.past.at(-1)
		if (!last) return
		this.past = this.past.slice(0, -1)
		this.#put(last)
	}

	async save(): Promise<void> {
		// A line that is not finished is refused where it arrives, in words that name it.
		const lines = this.lines as AccessSheet['lines']
		const answer = await send('PUT', `/bench/lines/${this.#table}`, { lines, version: this.#saved().version })
		if (!answer.ok) return void (this.wrong = answer.refusal.message)
		this.said = 'Saved. The lines are in force, in open pages too.'
		await invalidateAll()
	}

	isMarked(line: LineValue): boolean {
		return JSON.stringify(line) !== JSON.stringify(this.#saved().lines.find((each) => each.id === line['id']))
	}

	/** What is wrong with a line, by the part that it is wrong in. */
	issuesOf(line: LineValue): Record<string, string> {
		const issues = this.preview.issues.filter((issue) => issue.line === line['id'])
		return Object.fromEntries(issues.map((issue) => [issue.part, issue.message]))
	}

	/** How many people a line opens how many rows to, in words. */
	comesTo(line: LineValue): string {
		const found = this.preview.comesTo.find((each) => each.id === line['id'])
		if (!found) return ''
		if (found.people === 0) return 'nobody holds this role'
		const people = countOf(found.people, 'person', 'people')
		const rows = found.least === found.most ? countOf(found.most, 'row') : `${found.least} to ${found.most} rows each`
		return `${people} · ${rows}`
	}

	#put(next: readonly LineValue[]): void {
		this.lines = next
		this.said = ''
		void this.#look()
	}

	async #look(): Promise<void> {
		const mine = ++this.#asked
		const answer = await send('POST', `/bench/lines/${this.#table}`, { lines: this.lines })
		if (mine !== this.#asked) return
		this.wrong = answer.ok ? '' : answer.refusal.message
		if (answer.ok) this.preview = answer.value
	}
}
