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
	import { DragLine, LEVEL } from './drag-line.svelte.ts'
	import type { ScreenEdit } from './screen-edit.svelte.ts'

	type Props = {
		edit: ScreenEdit
		/** The line that is pointed at elsewhere. */
		pointed: string
	}

	let { edit, pointed }: Props = $props()

	provideHeld(() => (edit.screen ? heldAround(edit.screen, edit.screens) : {}))

	const drag = new DragLine()
	let ledger: HTMLElement

	function around(line: ScreenLine, within: readonly ScreenLine[]) {
		const held = within.reduce<AroundLines>((outer, holder) => aroundIn(holder, outer), {})
		return { table: held.table, outer: aroundIn(line, held).outer }
	}

	function letGo() {
		const dropped = drag.end()
		if (dropped) edit.drop(dropped.id, dropped.drop)
	}
</script>

<svelte:window
	onpointermove={(event) => drag.move(event, ledger, edit.screen?.lines ?? [], mayHold)}
	onpointerup={letGo}
	onpointercancel={() => drag.cancel()}
	onkeydown={(event) => event.key === 'Escape' && drag.cancel()}
/>

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
<div class="ledger" class:dragging={drag.id !== ''} bind:this={ledger}>
	{#each edit.placed as { line, level, number, within } (line.id)}
		<div
			data-line={line.id}
			class:lifted={line.id === drag.id || within.some(({ id }) => id === drag.id)}
			onfocusin={() => (edit.current = line.id)}
		>
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
				ongrab={(event) => drag.begin(event, line.id, level)}
			/>
		</div>
	{/each}
	{#if drag.over}
		<div class="gap" style:top="{drag.over.top}px" style:left="{40 + drag.over.drop.level * LEVEL}px"></div>
	{/if}
</div>
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
	.ledger {
		position: relative;
	}
	.dragging {
		cursor: grabbing;
		user-select: none;
	}
	.lifted {
		opacity: 0.45;
	}
	/* Where the line would go, beginning at its level. */
	.gap {
		position: absolute;
		right: 0;
		height: 4px;
		margin-top: -2px;
		background: var(--marigold);
		pointer-events: none;
	}
	.gap::before {
		content: '';
		position: absolute;
		left: -5px;
		top: -4px;
		width: 12px;
		height: 12px;
		background: var(--marigold);
		rotate: 45deg;
	}
	.said {
		padding: 0.5rem 1rem;
		background: var(--sea-wash);
		color: var(--sea);
	}
</style>
