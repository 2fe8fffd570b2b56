<script lang="ts">
	import { fromLine } from '$lib/core/sentence/line-values.ts'
	import type { Screen } from '$lib/core/app/document.ts'
	import { entryOfLine, mayHold, type ScreenLine } from '$lib/core/app/lines/all.ts'
	import { aroundIn, type AroundLines } from '$lib/core/app/walk-app.ts'
	import { beginLine, insertAll, placeBeside, tableAround } from '$lib/core/app/lines/new-line.ts'
	import { linesFromText, linesToText } from '$lib/core/app/lines/lines-text.ts'
	import { findLine, insertLine, moveLine, placedLines, replaceLine } from '$lib/core/app/lines/tree.ts'
	import { proposeLines } from '$lib/core/app/lines/propose-lines.ts'
	import type { LineValue } from '$lib/core/sentence/types.ts'
	import AddLine from '$lib/ui/sentences/AddLine.svelte'
	import { newId, useDraft } from '$lib/ui/bench/draft.svelte.ts'
	import ScreenTabs from '$lib/ui/bench/ScreenTabs.svelte'
	import Lookout from '$lib/ui/lookout/Lookout.svelte'
	import { countOf } from '$lib/core/text/count.ts'
	import { isTyping } from '$lib/ui/typing.ts'
	import SentenceLine from '$lib/ui/sentences/SentenceLine.svelte'

	let { data } = $props()

	const draft = useDraft()
	let chosen = $state('')
	let pointed = $state('')
	/** The line that had the focus last: new ones go beside it. */
	let current = $state('')
	let said = $state('')

	const screens = $derived(draft.document.screens)
	const screen = $derived(screens.find((each) => each.id === chosen) ?? screens[0])
	const placed = $derived(placedLines(screen?.lines ?? []))
	const shownAlone = $derived(
		screen && !placed.some(({ line }) => entryOfLine(line).showsRow(line)) ? screen.id : undefined
	)
	const vocabulary = $derived({ ...data.bench.vocabulary, screens, routines: draft.document.routines })
	const around = (line: ScreenLine, within: readonly ScreenLine[]) => {
		const held = within.reduce<AroundLines>((outer, holder) => aroundIn(holder, outer), {})
		return { table: held.table, outer: aroundIn(line, held).outer }
	}
	/** The table whose columns a new line beside the chosen one means. */
	const tableBeside = $derived.by(() => {
		const beside = placed.find(({ line }) => line.id === current)
		return beside && tableAround([...beside.within, beside.line])
	})
	const place = $derived(placeBeside(screen?.lines ?? [], current))

	function changeScreen(next: Screen) {
		draft.change({ ...draft.document, screens: screens.map((each) => (each.id === next.id ? next : each)) })
	}

	function changeLines(change: (lines: readonly ScreenLine[]) => ScreenLine[]) {
		if (screen) changeScreen({ ...screen, lines: change(screen.lines) })
	}

	function add(typed: LineValue) {
		if (!screen) return
		const within = place.withinFor(String(typed['kind']))
		const line = beginLine(typed, { id: newId(), screen: screen.id, vocabulary, within })
		changeLines((lines) => insertLine(lines, line, place.spotFor(line.kind)))
		current = line.id
	}

	/** What a sentence of the line's kind came to is a line of that kind. */
	const put = (id: string, next: LineValue) =>
		changeLines((lines) => replaceLine(lines, id, fromLine<ScreenLine>(next)))

	function addScreens(added: readonly Screen[]) {
		draft.change({ ...draft.document, screens: [...screens, ...added] })
		chosen = added[0]?.id ?? ''
	}

	function removeScreen() {
		if (screen) draft.change({ ...draft.document, screens: screens.filter((each) => each.id !== screen.id) })
	}

	/** A line that has the focus is copied as text with what it holds; such text comes back as lines, in any app. */
	function copy(event: ClipboardEvent) {
		const line = screen && findLine(screen.lines, current)
		if (!line || isTyping(event) || !document.getSelection()?.isCollapsed) return
		event.preventDefault()
		event.clipboardData?.setData('text/plain', linesToText([line], vocabulary))
		said = 'Copied as text. Paste it beside a line of any screen, of any app.'
	}

	function paste(event: ClipboardEvent) {
		if (!screen || isTyping(event)) return
		const pasted = linesFromText(event.clipboardData?.getData('text/plain') ?? '', vocabulary, newId)
		if (!pasted) return
		event.preventDefault()
		const { lines, problems } = pasted
		changeLines((before) => insertAll(before, lines, place))
		said = [`${countOf(lines.length, 'line')} pasted.`, ...problems].join(' ')
	}

	/** A line that is gone is nobody's neighbour. */
	$effect(() => {
		if (current !== '' && screen && !findLine(screen.lines, current)) current = ''
	})
</script>

<svelte:document oncopy={copy} onpaste={paste} />

<div class="screens">
	<div class="lines">
		<ScreenTabs
			{screens}
			chosen={screen?.id}
			tables={data.bench.tables}
			onchoose={(id) => (chosen = id)}
			onadd={addScreens}
		/>
		{#if screen}
			<header>
				<label class="visually-hidden" for="title">Title of the screen</label>
				<input
					id="title"
					class="title"
					value={screen.title}
					onchange={(event) => changeScreen({ ...screen, title: event.currentTarget.value || 'Screen' })}
				/>
				<button class="btn plain" onclick={removeScreen}>Remove screen</button>
			</header>
			{#each placed as { line, level, number, within } (line.id)}
				<div onfocusin={() => (current = line.id)}>
					<SentenceLine
						kind={entryOfLine(line).sentence.kind}
						{line}
						{vocabulary}
						{...around(line, within)}
						{number}
						{level}
						marked={pointed === line.id}
						onchange={(next) => put(line.id, next)}
						onremove={() => changeLines((lines) => replaceLine(lines, line.id, undefined))}
						onmove={(to) => changeLines((lines) => moveLine(lines, line.id, to, mayHold))}
					/>
				</div>
			{/each}
			{#if said}<p class="said" role="status">{said}</p>{/if}
			<AddLine
				kinds={place.kinds}
				{vocabulary}
				table={tableBeside}
				where={place.says}
				propose={(text) => proposeLines(text, vocabulary)}
				onadd={add}
			/>
		{:else}
			<p class="none">
				There is no screen yet. Make a list, a record sheet and a form at once from a table, or start with an empty
				screen.
			</p>
		{/if}
	</div>
	<Lookout
		app={draft.app}
		people={data.bench.people}
		screen={shownAlone}
		version={draft.version}
		onpoint={(line) => (pointed = line)}
	/>
</div>

<style>
	.screens {
		display: grid;
		grid-template-columns: minmax(22rem, 46fr) 54fr;
		flex: 1;
	}
	header {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		padding: 0.5rem 1rem 0.5rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	.title {
		flex: 1;
		border: 0;
		background: none;
		color: var(--pitch);
		font: 700 1.35rem var(--head);
		font-stretch: 90%;
		padding: 0.2rem 0;
		min-width: 0;
	}
	.said {
		padding: 0.5rem 1rem;
		background: var(--sea-wash);
		color: var(--sea);
	}
	.none {
		padding: 1.5rem;
	}
	@media (max-width: 900px) {
		.screens {
			grid-template-columns: 1fr;
		}
	}
</style>
