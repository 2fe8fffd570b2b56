/** Questions at a counter while somebody answers them: which one is asked, what was answered, and beginning again. */
import type { ShownAnswer, ShownAsk, ShownSteps } from '$lib/core/requests/screens.ts'
import { draftOf, type CellDraft } from '../../cells/cell-draft.ts'
import { entriesIn, partsOf } from '../form/form-parts.ts'
import type { FormState } from '../form/form-state.svelte.ts'

export class StepsState {
	/** What has been asked so far, the last one now. */
	#way = $state.raw<readonly string[]>([])
	/** What is said once all is sent; undefined before. */
	thanks = $state<string | undefined>()
	/** Whether an answer is on its way: a second tap is none. */
	isBusy = $state(false)
	readonly #line: () => ShownSteps
	readonly form: FormState

	constructor(line: () => ShownSteps, form: FormState) {
		this.#line = line
		this.form = form
	}

	/** Of those that are asked by what was answered. */
	readonly #asked = $derived.by(() => this.#line().asks.filter(({ id }) => this.form.isAsked({ id })))
	readonly ask = $derived.by<ShownAsk | undefined>(() => {
		const last = this.#way.at(-1)
		return this.#line().asks.find(({ id }) => id === last) ?? this.#asked[0]
	})
	readonly entry = $derived.by(() => entriesIn(partsOf(this.#line().form)).find(({ id }) => id === this.ask?.id))
	/** Its number among those that are asked, and of how many. */
	readonly number = $derived.by(() => this.#asked.findIndex(({ id }) => id === this.ask?.id) + 1)
	readonly count = $derived.by(() => this.#asked.length)
	readonly canGoBack = $derived.by(() => this.#way.length > 1)

	isChosen({ value }: ShownAnswer): boolean {
		const { entry } = this
		return entry !== undefined && this.form.draftAt(entry).text === draftOf(entry.column, value).text
	}

	async answer({ value }: ShownAnswer): Promise<void> {
		if (this.entry) await this.#goOn(draftOf(this.entry.column, value))
	}

	/** With what was typed. */
	async goOn(): Promise<void> {
		if (this.entry) await this.#goOn(this.form.draftAt(this.entry))
	}

	async skip(): Promise<void> {
		await this.#goOn({ text: '' })
	}

	back(): void {
		this.form.said = undefined
		this.#way = this.#way.slice(0, -1)
	}

	/** For the next person: nothing of this one is left. */
	beginAgain(): void {
		this.form.start({})
		this.form.said = undefined
		this.#way = []
		this.thanks = undefined
	}

	async #goOn(draft: CellDraft): Promise<void> {
		const { ask, entry } = this
		if (this.isBusy || !ask || !entry) return
		this.isBusy = true
		try {
			this.form.change(entry, draft)
			if (!this.form.check([entry])) return
			await this.form.judge()
			const next = this.#asked[this.#asked.findIndex(({ id }) => id === ask.id) + 1]
			if (next) this.#way = [...(this.#way.length === 0 ? [ask.id] : this.#way), next.id]
			else await this.#send()
		} finally {
			this.isBusy = false
		}
	}

	async #send(): Promise<void> {
		if ((await this.form.submit()) === undefined) return
		this.thanks = this.form.said?.text ?? ''
	}
}
