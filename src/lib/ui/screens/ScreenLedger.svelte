<script lang="ts">
	/** The lines of one screen, each at its level: to be changed, moved by keys or dragged by their numbers, and added to. */
	import { entryOfLine, mayHold, type ScreenLine } from '$lib/core/app/lines/all.ts'
	import { proposeLines } from '$lib/core/app/lines/propose-lines.ts'
	import type { Screen } from '$lib/core/app/document.ts'
	import { SCREEN_LINE } from '$lib/core/app/screen-line.ts'
	import { asLine, fromLine } from '$lib/core/sentence/line-values.ts'
	import { heldAround } from '$lib/core/app/shared-lines.ts'
	import { aroundIn, type AroundLines } from '$lib/core/app/walk-app.ts'
	import { provideHeld } from '../formula/held-here.ts'
	import AddLine from '../sentences/AddLine.svelte'
	import SentenceLine from '../sentences/SentenceLine.svelte'
	import DragLedger from './DragLedger.svelte'
	import type { ScreenEdit } from './screen-edit.svelte.ts'

	type Props = {
		edit: ScreenEdit
		/** The line that is pointed at elsewhere. */
		pointed: string
	}

	let { edit, pointed }: Props = $props()

	provideHeld(() => (edit.screen ? heldAround(edit.screen, edit.screens) : {}))

	function around(line: ScreenLine, within: readonly ScreenLine[]) {
		const held = within.reduce<AroundLines>((outer, holder) => aroundIn(holder, outer), {})
		return { table: held.table, outer: aroundIn(line, held).outer }
	}
</script>

{#if edit.screen}
	{@const { screen } = edit}
	<SentenceLine
		kind={SCREEN_LINE.kind}
		line={asLine(screen)}
		vocabulary={edit.vocabulary}
		number="▸"
		onchange={(next) => edit.changeScreen(fromLine<Screen>(next))}
	/>
{/if}
<DragLedger
	lines={edit.screen?.lines ?? []}
	{mayHold}
	ondrop={(id, drop) => edit.drop(id, drop)}
	onfocus={(id) => (edit.current = id)}
>
	{#snippet one({ line, level, number, within }, grab)}
		<SentenceLine
			kind={entryOfLine(line).sentence.kind}
			{line}
			vocabulary={edit.vocabulary}
			{...around(line, within)}
			{number}
			{level}
			marked={pointed === line.id}
			onchange={(next) => edit.put(line.id, next)}
			onremove={() => edit.remove(line.id)}
			onmove={(to) => edit.move(line.id, to)}
			ongrab={grab}
		/>
	{/snippet}
</DragLedger>
{#if edit.said}<p class="said" role="status">{edit.said}</p>{/if}
<AddLine
	kinds={edit.place.kinds}
	vocabulary={edit.vocabulary}
	table={edit.tableBeside}
	where={edit.place.says}
	propose={(text) => proposeLines(text, edit.vocabulary)}
	onadd={(line) => edit.add(line)}
/>

<style>
	.said {
		padding: 0.5rem 1rem;
		background: var(--sea-wash);
		color: var(--sea);
	}
</style>
