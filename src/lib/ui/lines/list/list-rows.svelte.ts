/**
 * The rows of a list as far as they were asked for. When the first page is read again because something changed, all that is
 * shown is read again in its place: nobody who has scrolled is sent back to the top.
 */
import { MOST_AT_ONCE } from '$lib/core/requests/screen-signs.ts'
import type { Narrowing } from '$lib/core/requests/screens.ts'
import type { WirePage, WireRow } from '$lib/core/query/wire.ts'
import type { Sent } from '../../send.ts'

export interface PageAsked {
	readonly narrowing: Narrowing
	readonly after?: string | undefined
	readonly limit?: number | undefined
}

export class ListRows {
	rows = $state.raw<readonly WireRow[]>([])
	next = $state.raw<string | null>(null)
	busy = $state(false)
	wrong = $state('')
	/** What is looked for in words. */
	find = $state('')
	/** By what its reader has ordered it. */
	sort = $state.raw<Narrowing['sort']>()
	private readonly ask: (asked: PageAsked) => Promise<Sent<WirePage>>
	private first: WirePage | undefined
	private filters: Narrowing['filters'] = []
	private asked = 0

	constructor(ask: (asked: PageAsked) => Promise<Sent<WirePage>>) {
		this.ask = ask
	}

	/**
	 * Rows from the first as the server has just read them: under the filters and in the order of the address alone, or under all
	 * that they are narrowed down to and as far as they are shown.
	 */
	async take(page: WirePage, { find, filters, sort }: Narrowing): Promise<void> {
		const isNarrowedAnew = JSON.stringify([filters, sort]) !== JSON.stringify([this.filters, this.sort])
		const shown = this.rows.length
		const isLonger = this.first !== undefined && !isNarrowedAnew && shown > page.rows.length && page.next !== null
		if (find.trim() === '') this.first = page
		this.filters = filters
		this.sort = sort
		if (isLonger || find !== this.find) return this.readAgain(isNarrowedAnew ? undefined : shown)
		this.show(page)
	}

	get narrowing(): Narrowing {
		return { find: this.find, filters: this.filters, ...(this.sort ? { sort: this.sort } : {}) }
	}

	/** Looks for words; an empty text shows all again. */
	async look(text: string): Promise<void> {
		this.find = text
		if (text.trim() === '' && this.first && this.rows.length <= this.first.rows.length) return this.show(this.first)
		return this.readAgain(undefined)
	}

	async more(): Promise<void> {
		if (this.next === null || this.busy) return
		const page = await this.read({ after: this.next })
		if (page) {
			this.rows = [...this.rows, ...page.rows]
			this.next = page.next
		}
	}

	private async readAgain(shown: number | undefined): Promise<void> {
		const page = await this.read(shown === undefined ? {} : { limit: Math.min(Math.max(shown, 1), MOST_AT_ONCE) })
		if (page) this.show(page)
	}

	private show(page: WirePage): void {
		this.asked++
		this.rows = page.rows
		this.next = page.next
		this.busy = false
		this.wrong = ''
	}

	/** The answer to the last question; one that was overtaken by another is dropped. */
	private async read(asked: Omit<PageAsked, 'narrowing'>): Promise<WirePage | undefined> {
		const mine = ++this.asked
		this.busy = true
		const answer = await this.ask({ ...asked, narrowing: this.narrowing })
		if (mine !== this.asked) return undefined
		this.busy = false
		if (answer.ok) return answer.value
		this.wrong = answer.refusal.message
		return undefined
	}
}
