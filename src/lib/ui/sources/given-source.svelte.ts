import { invalidate } from '$app/navigation'
import type { ImportPlan } from '$lib/core/exchange/plan.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import type { ImportState, Inspection } from '$lib/core/requests/imports.ts'
import { ask, send } from '../send.ts'
import { changeStructure } from '../structure/structure.ts'
import { bringSheetsIn, type SheetBroughtIn, type SourceAddress } from './bring-sheets.ts'
import { goInto, openDoubts, proposePlan, rowsOf, settlePlan } from './import-plan.ts'

/** An inspection, and what the file is called. */
export type InspectedFile = Inspection & { readonly file: string }

interface Settings {
	readonly sheet?: string
	readonly headingRow?: number | null
	readonly overTwo?: boolean
	readonly firstRow?: number
}

interface Given {
	readonly importId: string
	readonly first: InspectedFile
	/** The tables of the Bench, as they are now. */
	readonly tables: () => readonly BenchTable[]
	/** The table that the file is brought into again. */
	readonly again?: number | undefined
}

/** A file on its way in: what was read into it, what the builder says of it, and how far it has come. */
export class GivenSource {
	readonly #address: SourceAddress
	readonly #tables: () => readonly BenchTable[]
	#timer: ReturnType<typeof setTimeout> | undefined

	inspection: InspectedFile
	plan: ImportPlan
	/** Answers to doubts, by their keys; one that was not answered is read as proposed. */
	settled = $state<Record<string, string>>({})
	status = $state<ImportState>({ state: 'given' })
	wrong = $state('')
	/** What was compared stays in sight while it goes in. */
	reviewed = $state.raw<Extract<ImportState, { state: 'compared' }> | undefined>()
	/** Other sheets that come in as well, as proposed, and what became of them. */
	ticked = $state<string[]>([])
	moreDone = $state.raw<readonly SheetBroughtIn[]>([])

	readonly into = $derived.by(() => this.tables.find((table) => table.id === this.plan.into?.table))
	readonly others = $derived.by(() => this.inspection.sheets.filter((sheet) => sheet !== this.inspection.sheet))
	readonly more = $derived.by(() => (this.into ? [] : this.ticked.filter((sheet) => sheet !== this.inspection.sheet)))
	readonly doubts = $derived.by(() => openDoubts(this.inspection, this.plan))
	readonly included = $derived.by(() => this.plan.columns.filter((column) => column.include))
	readonly rowCount = $derived.by(() => rowsOf(this.inspection, this.plan))
	/** The table that no column of the file goes into yet: there is nothing to compare. */
	readonly goesNowhere = $derived.by(() => (this.included.length === 0 ? this.into : undefined))
	/** The table that the rows are in, once they are. */
	readonly tableIn = $derived.by(() => {
		const id = this.status.state === 'done' || this.status.state === 'merged' ? this.status.table : undefined
		return this.tables.find((table) => table.id === id)
	})

	constructor({ importId, first, tables, again }: Given) {
		this.#address = `/bench/imports/${importId}`
		this.#tables = tables
		this.inspection = $state.raw(first)
		this.plan = $state(this.#propose(first, again))
	}

	get tables(): readonly BenchTable[] {
		return this.#tables()
	}

	/** Reads the file otherwise: another sheet, other headings, another first row. */
	async look(settings: Settings): Promise<void> {
		const answer = await send('POST', this.#address, { kind: 'inspect', sheet: this.plan.sheet, ...settings })
		if (!answer.ok) return this.#refuse(answer.refusal.message)
		this.wrong = ''
		const proposed = this.#propose(answer.value, this.plan.into?.table)
		// Another sheet brings a name of its own; other headings keep the one that was written.
		const tableName = settings.sheet === undefined ? this.plan.tableName : proposed.tableName
		this.inspection = answer.value
		this.settled = {}
		this.change({ ...proposed, tableName })
	}

	/** What was compared no longer says what would happen. */
	change(next: ImportPlan): void {
		this.plan = next
		if (this.status.state === 'compared') this.back()
	}

	fillDown(from: number, fillDown: boolean): void {
		const columns = this.plan.columns.map((column) => (column.from === from ? { ...column, fillDown } : column))
		this.change({ ...this.plan, columns })
	}

	/** Brings the rows in, or compares them where there is a table to compare them with. */
	async start(): Promise<void> {
		this.wrong = ''
		const plan = settlePlan($state.snapshot(this.plan), this.doubts, this.settled)
		const answer = await send('POST', this.#address, { kind: 'start', plan, more: this.more.length > 0 })
		if (!answer.ok) return this.#refuse(answer.refusal.message)
		this.status = { state: 'running', doing: 'reading', done: 0, of: this.rowCount }
		void this.#follow()
	}

	/** Puts in what was compared. */
	async apply(partly: boolean): Promise<void> {
		this.wrong = ''
		const answer = await send('POST', this.#address, { kind: 'apply', partly })
		if (!answer.ok) return this.#refuse(answer.refusal.message)
		void this.#follow()
	}

	async stop(): Promise<void> {
		await send('POST', this.#address, { kind: 'stop' })
	}

	back(): void {
		this.wrong = ''
		this.reviewed = undefined
		this.status = { state: 'given' }
	}

	/** Undoes the bringing in. The table waits among those that were taken out, should it be wanted after all. */
	async takeOut(): Promise<boolean> {
		const table = this.status.state === 'done' ? this.status.table : 0
		const answer = await changeStructure({ kind: 'remove table', table })
		if (!answer.ok) this.#refuse(answer.refusal.message)
		else await invalidate('app:bench')
		return answer.ok
	}

	/** Asks no longer how far it has come. */
	leave(): void {
		clearTimeout(this.#timer)
	}

	#propose(found: InspectedFile, table: number | undefined): ImportPlan {
		const target = this.tables.find((each) => each.id === table && each.owned)
		const proposed = proposePlan(found, found.file)
		return target ? goInto(proposed, target, found.keys) : proposed
	}

	#refuse(message: string): void {
		this.wrong = message
	}

	async #follow(): Promise<void> {
		const answer = await ask(this.#address)
		if (!answer.ok) return this.#refuse(answer.refusal.message)
		const status = answer.value
		const isIn = status.state === 'done' || status.state === 'merged'
		// The way to the table is shown once the Bench knows it.
		if (isIn) await invalidate('app:bench')
		this.status = status
		if (isIn) await this.#bringMoreIn()
		else if (status.state === 'running') this.#timer = setTimeout(() => void this.#follow(), 250)
		else if (status.state === 'compared') {
			this.reviewed = status
			this.wrong = status.refused?.message ?? ''
		} else if (status.state === 'failed') {
			this.back()
			this.wrong = status.message
		}
	}

	async #bringMoreIn(): Promise<void> {
		const names = [...this.tables.map((table) => table.name), this.plan.tableName]
		const taken = names.map((name) => name.toLowerCase())
		await bringSheetsIn(this.#address, this.more, taken, (done) => (this.moreDone = [...this.moreDone, done]))
		if (this.more.length > 0) await invalidate('app:bench')
	}
}
