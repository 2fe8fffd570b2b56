/**
 * What a staff page shows at this moment. It comes with the page; then, when others change something or words are typed on it,
 * only the lines concerned are asked for, and of a list only the rows that differ: nobody loses their place.
 */
import { getContext, setContext } from 'svelte'
import { invalidate, invalidateAll } from '$app/navigation'
import { navigating } from '$app/state'
import { allLines } from '$lib/core/app/lines/tree.ts'
import type { ScreenPath, ShownLine, ShownList, ShownScreen, StaffPage } from '$lib/core/requests/screens.ts'
import type { ChangedTables } from '../follow.ts'
import { send } from '../send.ts'
import type { LineComponents } from './line-component.ts'
import { cellsThatDiffer, knownOf, mergeLines, rowsThatDiffer, showsIn, type ListShows } from './lines-again.ts'

const KEY = Symbol('shown now')

/** What says that a screen is not to be seen any more; anything else may pass, and what is shown stays. */
const SHUT: ReadonlySet<string> = new Set(['not_found', 'forbidden'])

type Screens = Pick<StaffPage, 'main' | 'beside'>

type Load = (shown: Screens) => Promise<LineComponents>

interface Asked {
	readonly path: ScreenPath
	readonly tables: ChangedTables
	readonly row: string | null
	readonly held: Readonly<Record<string, string>>
}

export class ShownNow {
	main = $state.raw() as ShownScreen
	beside = $state.raw<ShownScreen | null>(null)
	/** Rows of a list, and cells of a sheet, that others changed or added since their reader last looked, by line. */
	changed = $state.raw<Readonly<Record<string, readonly string[]>>>({})
	/** Those of the kinds of line that are shown. */
	components = $state.raw<LineComponents>({})
	readonly #load: Load
	// Nothing is drawn by either.
	readonly #lists: Record<string, (() => ListShows) | undefined> = {}
	#own: readonly string[] = []
	#taken: { readonly page: StaffPage; readonly words: string } | undefined
	readonly #first: StaffPage
	#asked = 0

	constructor(page: StaffPage, load: Load) {
		this.#first = page
		this.#load = load
		this.main = page.main
		this.beside = page.beside
	}

	/**
	 * The page as it was read last, and what stands in its address. `words`: the fragment, which the server is never told with
	 * a page; where there are some, the lines are asked for with them before anything is shown otherwise.
	 */
	async take(page: StaffPage, held: Readonly<Record<string, string>>, words: string): Promise<void> {
		const before = this.#taken
		this.#taken = { page, words }
		const isRead = page.main !== before?.page.main
		// What stands round the page may have been read again alone.
		if (!isRead && words === before.words) return
		const isOther = page.main.screen?.id !== before?.page.main.screen?.id || page.row !== before?.page.row
		if (isOther) this.changed = {}
		const shown = isRead ? page : this
		if (words !== '' || !isRead) return this.#readAgain(shown, { tables: null, held })
		this.#asked++
		this.#show(page)
	}

	/** Others changed something: these tables, or anything; then who may see what, and so the navigation, may be another. */
	async changedBy(tables: ChangedTables, held: Readonly<Record<string, string>>): Promise<void> {
		if (tables !== null) return this.readAgain(tables, held, true)
		if (!navigating.to) await invalidateAll()
	}

	/** Reads again what changes of these tables can have changed; `marks`: what differs is marked, since others did it. */
	async readAgain(tables: ChangedTables, held: Readonly<Record<string, string>>, marks = false): Promise<void> {
		await this.#readAgain({ main: this.main, beside: this.beside }, { tables, held, marks })
		// Somebody who is on their way to another page would be kept from it.
		if (!navigating.to) await invalidate('app:waiting')
	}

	async #readAgain(
		{ main, beside }: Screens,
		{ tables, held, marks = false }: { tables: ChangedTables; held: Readonly<Record<string, string>>; marks?: boolean }
	): Promise<void> {
		const mine = ++this.#asked
		// What is done meanwhile by oneself is no news either, though it may be over when the answer comes.
		const own = this.#own
		const { base, row, from } = this.#taken?.page ?? this.#first
		const asked = await Promise.all([
			this.#ask(main, { path: `${base}/${main.screen?.id ?? ''}`, row, held, tables }),
			beside && this.#ask(beside, { path: `${base}/${from ?? ''}`, row: null, held, tables })
		])
		if (mine !== this.#asked) return
		const [newMain, newBeside] = asked
		// What is no longer to be seen is said by the page itself.
		if (newMain === undefined || newBeside === undefined) return navigating.to ? undefined : invalidateAll()
		if (marks) this.#mark([newMain, newBeside], own)
		this.#show({ main: newMain, beside: newBeside })
	}

	#show({ main, beside }: Screens): void {
		this.main = main
		this.beside = beside
	}

	/** A row that this person is changing is no news to them. */
	async changing<T>(row: string, work: () => Promise<T>): Promise<T> {
		this.#own = [...this.#own, row]
		return work().finally(() => (this.#own = without(this.#own, row)))
	}

	/** For lines that show rows: how much of them. Returns what ends it. */
	follow(line: string, shows: () => ListShows): () => void {
		this.#lists[line] = shows
		return () => (this.#lists[line] = undefined)
	}

	/** Somebody has looked at a row, or at all that changed in a list. */
	looked(line: string, row?: string): void {
		const left = [...(this.changed[line] ?? [])].filter((id) => row !== undefined && id !== row)
		this.changed = { ...this.changed, [line]: left }
	}

	/** The screen with the lines that differ in their places; undefined where it is not to be seen any more. */
	async #ask(shown: ShownScreen, { path, tables, row, held }: Asked): Promise<ShownScreen | undefined> {
		if (!shown.screen) return shown
		const shows = showsIn(shown.screen.lines, (line) => this.#showsOf(line))
		const answer = await send('POST', `${path}/lines`, {
			...{ kind: 'again', tables, held, release: shown.app.release, ...knownOf(shown.screen.lines, shows) },
			...(row === null ? {} : { row })
		})
		if (!answer.ok) return SHUT.has(answer.refusal.code) ? undefined : shown
		const { value } = answer
		if (value.kind === 'lines') return mergeLines(shown, value.lines, shows)
		// Lines may be shown by now of kinds that were not.
		this.components = { ...this.components, ...(await this.#load({ main: value.screen, beside: null })) }
		return value.screen
	}

	#showsOf(line: ShownList & { readonly id: string }): ListShows {
		return (
			this.#lists[line.id]?.() ?? {
				narrowing: line.narrowing,
				rows: line.page.rows,
				isWhole: line.page.next === null
			}
		)
	}

	/** What others changed in the rows of lists, and in the cells of sheets. */
	#mark(screens: readonly (ShownScreen | null)[], own: readonly string[]): void {
		const lines = screens.flatMap((each) => allLines<ShownLine>(each?.screen?.lines ?? []))
		const found = lines.flatMap((line) => {
			const differ = this.#differingIn(line, own)
			return differ === undefined ? [] : [[line.id, together(this.changed[line.id] ?? [], differ)] as const]
		})
		this.changed = { ...this.changed, ...Object.fromEntries(found) }
	}

	#differingIn(line: ShownLine & { readonly id: string }, own: readonly string[]): readonly string[] | undefined {
		if (line.kind === 'list')
			return rowsThatDiffer(this.#showsOf(line), line.page.rows).filter((id) => !own.includes(id))
		if (line.kind !== 'record' || (line.row && own.includes(line.row.id))) return undefined
		const before = [this.main, this.beside]
			.flatMap((each) => allLines<ShownLine>(each?.screen?.lines ?? []))
			.find(({ id }) => id === line.id)
		return before?.kind === 'record' ? cellsThatDiffer(before.row, line.row) : undefined
	}
}

/** `load`: the components of the kinds of line that something shows. */
export function provideShownNow(page: StaffPage, load: Load): ShownNow {
	return setContext(KEY, new ShownNow(page, load))
}

export function useShownNow(): ShownNow {
	return getContext<ShownNow>(KEY)
}

/** Each once. */
function together(some: readonly string[], more: readonly string[]): readonly string[] {
	return [...some, ...more.filter((each) => !some.includes(each))]
}

/** A list that holds something as often as it is being done, once less. */
function without(list: readonly string[], one: string): readonly string[] {
	const at = list.indexOf(one)
	return list.filter((_each, i) => i !== at)
}
