/** What a builder does to the screens of a draft: which one is open, which line has the focus, and every change of its lines. */
import type { Screen } from '$lib/core/app/document.ts'
import { dropLine, type Drop } from '$lib/core/app/lines/drop-line.ts'
import { mayHold, showsRow, type ScreenLine } from '$lib/core/app/lines/all.ts'
import { linesFromText, linesToText } from '$lib/core/app/lines/lines-text.ts'
import { beginLine, insertAll, placeBeside, tableAround } from '$lib/core/app/lines/new-line.ts'
import { findLine, insertLine, moveLine, placedLines, replaceLine, type Direction } from '$lib/core/app/lines/tree.ts'
import { vocabularyOf, type Names } from '$lib/core/app/printed.ts'
import { fromLine } from '$lib/core/sentence/line-values.ts'
import type { LineValue } from '$lib/core/sentence/types.ts'
import { countOf } from '$lib/core/text/count.ts'
import { isTyping } from '../typing.ts'
import { newId, type DraftState } from '../bench/draft.svelte.ts'

export class ScreenEdit {
	readonly draft: DraftState
	private readonly names: () => Names
	/** The screen that is open, by its id; the first where it is blank or gone. */
	chosen = $state('')
	/** The line that had the focus last: new ones go beside it. */
	current = $state('')
	/** What was just done, where it does not show by itself. */
	said = $state('')

	readonly screens = $derived.by(() => this.draft.document.screens)
	readonly screen = $derived.by(() => this.screens.find((each) => each.id === this.chosen) ?? this.screens[0])
	readonly placed = $derived.by(() => placedLines(this.screen?.lines ?? []))
	readonly vocabulary = $derived.by(() => vocabularyOf(this.draft.document, this.names()))
	/** Where a new line goes. A line that is gone is nobody's neighbour. */
	readonly place = $derived.by(() => placeBeside(this.screen?.lines ?? [], this.current))
	/** Whether the screen is opened by itself, not from a row. */
	readonly standsAlone = $derived.by(() => !showsRow(this.screen?.lines ?? []))
	/** The table whose columns a new line beside the current one means. */
	readonly tableBeside = $derived.by(() => {
		const beside = this.placed.find(({ line }) => line.id === this.current)
		return beside && tableAround([...beside.within, beside.line])
	})

	constructor(draft: DraftState, names: () => Names) {
		this.draft = draft
		this.names = names
	}

	changeScreen(next: Screen): void {
		const screens = this.screens.map((each) => (each.id === next.id ? next : each))
		this.draft.change({ ...this.draft.document, screens })
	}

	/** Before another one, or at the end: the order of the screens is that of the navigation. */
	moveScreen(id: string, before: string | undefined): void {
		const moved = this.screens.find((screen) => screen.id === id)
		const others = this.screens.filter((screen) => screen.id !== id)
		const at = others.findIndex((screen) => screen.id === before)
		if (!moved || id === before) return
		const screens = at === -1 ? [...others, moved] : [...others.slice(0, at), moved, ...others.slice(at)]
		this.draft.change({ ...this.draft.document, screens })
	}

	/** One place towards the beginning or the end. */
	stepScreen(id: string, by: -1 | 1): void {
		const at = this.screens.findIndex((screen) => screen.id === id)
		if (by === -1 && at > 0) this.moveScreen(id, this.screens[at - 1]?.id)
		if (by === 1 && at < this.screens.length - 1) this.moveScreen(id, this.screens[at + 2]?.id)
	}

	addScreens(added: readonly Screen[]): void {
		this.draft.change({ ...this.draft.document, screens: [...this.screens, ...added] })
		this.chosen = added[0]?.id ?? ''
	}

	removeScreen(id: string): void {
		this.draft.change({ ...this.draft.document, screens: this.screens.filter((each) => each.id !== id) })
	}

	add(typed: LineValue): void {
		if (!this.screen) return
		const within = this.place.withinFor(String(typed['kind']))
		const line = beginLine(typed, { id: newId(), screen: this.screen.id, vocabulary: this.vocabulary, within })
		const spot = this.place.spotFor(line.kind)
		this.changeLines((lines) => insertLine(lines, line, spot))
		this.current = line.id
	}

	/** What a sentence of the line's kind came to is a line of that kind. */
	put(id: string, next: LineValue): void {
		this.changeLines((lines) => replaceLine(lines, id, fromLine<ScreenLine>(next)))
	}

	remove(id: string): void {
		this.changeLines((lines) => replaceLine(lines, id, undefined))
	}

	move(id: string, to: Direction): void {
		this.changeLines((lines) => moveLine(lines, id, to, mayHold))
	}

	drop(id: string, drop: Drop): void {
		this.changeLines((lines) => dropLine(lines, id, drop))
	}

	/** A line that has the focus is copied as text with what it holds; such text comes back as lines, in any app. */
	copy(event: ClipboardEvent): void {
		const line = this.screen && findLine(this.screen.lines, this.current)
		if (!line || isTyping(event) || !document.getSelection()?.isCollapsed) return
		event.preventDefault()
		event.clipboardData?.setData('text/plain', linesToText([line], this.vocabulary))
		this.said = 'Copied as text. Paste it beside a line of any screen, of any app.'
	}

	paste(event: ClipboardEvent): void {
		if (!this.screen || isTyping(event)) return
		const pasted = linesFromText(event.clipboardData?.getData('text/plain') ?? '', this.vocabulary, newId)
		if (!pasted) return
		event.preventDefault()
		const { lines, problems } = pasted
		const { place } = this
		this.changeLines((before) => insertAll(before, lines, place))
		this.said = [`${countOf(lines.length, 'line')} pasted.`, ...problems].join(' ')
	}

	private changeLines(change: (lines: readonly ScreenLine[]) => ScreenLine[]): void {
		if (this.screen) this.changeScreen({ ...this.screen, lines: change(this.screen.lines) })
	}
}
