<script lang="ts">
	import type { Screen } from '$lib/core/app/document.ts'
	import type { ScreenLine } from '$lib/core/app/lines/all.ts'
	import { entryOfLine, SCREEN_SENTENCES } from '$lib/core/app/lines/all.ts'
	import { makeScreens } from '$lib/core/app/make-screens.ts'
	import type { LineValue } from '$lib/core/sentence/types.ts'
	import AddLine from '$lib/ui/sentences/AddLine.svelte'
	import { newId, useDraft } from '$lib/ui/bench/draft.svelte.ts'
	import Lookout from '$lib/ui/lookout/Lookout.svelte'
	import SentenceLine from '$lib/ui/sentences/SentenceLine.svelte'

	let { data } = $props()

	const draft = useDraft()
	let chosen = $state('')
	let pointed = $state('')

	const screens = $derived(draft.document.screens)
	const screen = $derived(screens.find((each) => each.id === chosen) ?? screens[0])
	const shownAlone = $derived(
		screen && !screen.lines.some((line) => entryOfLine(line).showsRow) ? screen.id : undefined
	)
	const vocabulary = $derived({ ...data.bench.vocabulary, screens, routines: draft.document.routines })

	function changeScreen(next: Screen) {
		draft.change({ ...draft.document, screens: screens.map((each) => (each.id === next.id ? next : each)) })
	}

	function changeLines(lines: readonly LineValue[]) {
		if (screen) changeScreen({ ...screen, lines: lines as unknown as ScreenLine[] })
	}

	/** A line is kept only once its table is chosen: a new one starts with the first. */
	function add(line: LineValue) {
		if (!screen) return
		const first = vocabulary.tables[0]
		const filled: Record<string, unknown> = { ...line, id: newId() }
		if ('table' in filled && filled['table'] === null) filled['table'] = first?.id
		if (filled['does'] === null) filled['does'] = { kind: 'open', screen: screen.id }
		if ('columns' in filled && (filled['columns'] as number[]).length === 0) {
			const table = vocabulary.tables.find((each) => each.id === filled['table'])
			filled['columns'] =
				table?.columns
					.filter((column) => !column.condition)
					.slice(0, 4)
					.map((column) => column.id) ?? []
		}
		changeLines([...screen.lines, filled])
	}

	function move(at: number, by: -1 | 1) {
		if (!screen) return
		const to = at + by
		if (to < 0 || to >= screen.lines.length) return
		const next = [...screen.lines]
		const [line] = next.splice(at, 1)
		if (line) next.splice(to, 0, line)
		changeLines(next)
	}

	function addScreen() {
		const id = newId()
		draft.change({ ...draft.document, screens: [...screens, { id, title: 'New screen', lines: [] }] })
		chosen = id
	}

	function addFromTable(event: Event & { currentTarget: HTMLSelectElement }) {
		const select = event.currentTarget
		const table = data.bench.tables.find((each) => each.id === Number(select.value))
		select.value = ''
		if (!table) return
		const made = makeScreens(table, newId)
		draft.change({ ...draft.document, screens: [...screens, ...made] })
		chosen = made[0]?.id ?? ''
	}

	function removeScreen() {
		if (screen) draft.change({ ...draft.document, screens: screens.filter((each) => each.id !== screen.id) })
	}
</script>

<div class="screens">
	<div class="lines">
		<nav aria-label="Screens">
			{#each screens as each (each.id)}
				<button class:on={each.id === screen?.id} onclick={() => (chosen = each.id)}>{each.title}</button>
			{/each}
			<button class="new" onclick={addScreen}>+ Screen</button>
			<select aria-label="Make screens from a table" onchange={addFromTable}>
				<option value="">+ From a table…</option>
				{#each data.bench.tables as table (table.id)}<option value={table.id}>{table.name}</option>{/each}
			</select>
		</nav>
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
			{#each screen.lines as line, i (line.id)}
				<SentenceLine
					kind={entryOfLine(line).sentence.kind}
					{line}
					{vocabulary}
					number={i + 1}
					marked={pointed === line.id}
					onchange={(next) =>
						changeLines(screen.lines.map((each, j) => (j === i ? (next as unknown as ScreenLine) : each)))}
					onremove={() => changeLines(screen.lines.filter((_each, j) => j !== i))}
					onmove={(by) => move(i, by)}
				/>
			{/each}
			<AddLine kinds={SCREEN_SENTENCES} {vocabulary} onadd={add} />
		{:else}
			<p class="none">
				There is no screen yet. Make a list, a record sheet and a form at once from a table, or start with an empty
				screen.
			</p>
		{/if}
	</div>
	<Lookout app={draft.app} people={data.bench.people} screen={shownAlone} onpoint={(line) => (pointed = line)} />
</div>

<style>
	.screens {
		display: grid;
		grid-template-columns: minmax(22rem, 46fr) 54fr;
		flex: 1;
	}
	nav {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 0.3rem;
		padding: 0.6rem 1rem 0;
	}
	nav button,
	nav select {
		border: 0;
		background: none;
		color: var(--zinc-7);
		font: 600 0.92rem var(--head);
		padding: 0.35rem 0.6rem;
		border-bottom: 3px solid transparent;
	}
	nav select {
		padding-right: 1.8rem;
	}
	nav button.on {
		color: var(--pitch);
		border-bottom-color: var(--marigold);
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
	.none {
		padding: 1.5rem;
	}
	@media (max-width: 900px) {
		.screens {
			grid-template-columns: 1fr;
		}
	}
</style>
