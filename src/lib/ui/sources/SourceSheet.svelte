<script lang="ts">
	/** A file before it is brought in: its rows as they stand, what was read into them, and what is to be settled. */
	import { onDestroy, untrack } from 'svelte'
	import { goto } from '$app/navigation'
	import { makeScreens } from '$lib/core/app/made/make-app.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { newId, useDraft } from '../bench/draft.svelte.ts'
	import { GivenSource, type InspectedFile } from './given-source.svelte.ts'
	import MergeReview from './MergeReview.svelte'
	import OtherSheets from './OtherSheets.svelte'
	import PictureOffers from './PictureOffers.svelte'
	import SourceDoubts from './SourceDoubts.svelte'
	import SourceFoot from './SourceFoot.svelte'
	import SourceGrid from './SourceGrid.svelte'
	import SourceHeader from './SourceHeader.svelte'
	import SourceTold from './SourceTold.svelte'

	type Props = {
		importId: string
		first: InspectedFile
		app: number
		tables: readonly BenchTable[]
		/** The table that the file is brought into again. */
		again?: number | undefined
	}

	let { importId, first, app, tables, again }: Props = $props()
	const draft = useDraft()
	const source = untrack(() => new GivenSource({ importId, first, tables: () => tables, again }))
	onDestroy(() => source.leave())

	const blanks = $derived(source.inspection.columns.filter((column) => column.blank))

	/** Screens for the new table, in the draft of this app. */
	async function makeTheScreens() {
		if (!source.tableIn) return
		const made = makeScreens({ chosen: [source.tableIn.id], all: tables, newId })
		const screens = [...draft.document.screens, ...made]
		draft.change({ ...draft.document, screens })
		await goto(`/bench/${app}/screens`)
	}

	async function takeOut() {
		if (await source.takeOut()) await goto(`/bench/${app}/sources`)
	}
</script>

<div class="sheet">
	<SourceHeader {source} />
	{#if source.reviewed && source.plan.into}
		<div class="scroll">
			<MergeReview
				comparison={source.reviewed.comparison}
				table={source.plan.tableName}
				how={source.plan.into.how}
				unread={source.reviewed.unread}
				unreadCount={source.reviewed.unreadCount}
			/>
		</div>
	{:else}
		<div class="work">
			<SourceGrid inspection={source.inspection} bind:plan={source.plan} doubts={source.doubts} into={source.into} />
			<aside>
				<SourceDoubts {source} />
				<SourceTold {source} />
				<OtherSheets {source} />
				<PictureOffers inspection={source.inspection} plan={source.plan} {app} table={source.tableIn} />
				{#if blanks.length > 0}
					<p class="note">
						{blanks.map((column) => column.name).join(', ')}
						{blanks.length === 1 ? 'is' : 'are'} wholly blank and left out.
					</p>
				{/if}
			</aside>
		</div>
	{/if}
	<SourceFoot {source} {app} ontakeout={takeOut} onscreens={makeTheScreens} />
</div>

<style>
	.sheet {
		display: flex;
		flex-direction: column;
		height: calc(100dvh - 92px);
	}
	.work {
		flex: 1;
		display: grid;
		grid-template-columns: minmax(0, 1fr) 330px;
		min-height: 0;
	}
	.scroll {
		flex: 1;
		overflow: auto;
	}
	aside :global(.tick) {
		display: flex;
		gap: 0.5rem;
		align-items: baseline;
		padding: 0.15rem 0;
	}
	aside {
		background: var(--limewash);
		border-left: 1px solid var(--zinc-3);
		padding: 0.9rem 1.1rem;
		overflow: auto;
		display: grid;
		gap: 0.6rem;
		align-content: start;
	}
	aside :global(:is(.doubt, .told)) {
		margin: 0;
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		padding: 0.6rem 0.8rem;
		overflow-wrap: anywhere;
	}
	aside :global(.note) {
		color: var(--zinc-7);
	}
	@media (max-width: 900px) {
		.work {
			grid-template-columns: 1fr;
			overflow: auto;
		}
	}
</style>
