<script lang="ts">
	/** The routines of an app, each with whether it starts at present, and the ways to begin a new one. */
	import { STARTS, type Start } from '$lib/core/routine/routine.ts'
	import type { RoutineState } from '$lib/core/requests/runs.ts'
	import SideList from '../bench/SideList.svelte'
	import type { RoutineEdit } from './routine-edit.svelte.ts'

	type Props = { edit: RoutineEdit; states: readonly RoutineState[] }

	let { edit, states }: Props = $props()

	const stateOf = (id: string) => states.find(({ routine }) => routine === id)

	function says(state: RoutineState | undefined): { readonly says: string; readonly isBad: boolean } {
		if (!state?.isLive) return { says: 'not released', isBad: false }
		if (state.paused !== null) return { says: state.paused === '' ? 'paused' : 'stopped', isBad: true }
		const givenUp = state.counts?.givenUp ?? 0
		return givenUp > 0 ? { says: `${givenUp} given up`, isBad: true } : { says: 'on', isBad: false }
	}

	const items = $derived(edit.routines.map(({ id, name }) => ({ id, name, ...says(stateOf(id)) })))

	let isAdding = $state(false)

	function add(kind: Start['kind']) {
		isAdding = false
		edit.add(kind)
	}
	// The record has each kind of start.
	const kinds = Object.keys(STARTS) as Start['kind'][]
</script>

<nav aria-label="Routines">
	<h2>Routines</h2>
	<SideList {items} open={edit.routine?.id} onopen={(id) => (edit.chosen = id)} />
	<button class="btn plain" aria-expanded={isAdding} onclick={() => (isAdding = !isAdding)}>+ New routine</button>
	{#if isAdding}
		<p class="quiet">It starts</p>
		<ul class="kinds">
			{#each kinds as kind (kind)}
				<li>
					<button class="btn" title={STARTS[kind].sentence.kind.about} onclick={() => add(kind)}
						>{STARTS[kind].offer}</button
					>
				</li>
			{/each}
		</ul>
	{/if}
</nav>

<style>
	nav {
		padding: 0.6rem 0 1.5rem;
	}
	h2 {
		margin: 0;
		padding: 0.2rem 1.35rem 0.5rem;
		font: 700 0.95rem var(--head);
	}
	ul {
		list-style: none;
		margin: 0 0 0.6rem;
		padding: 0;
	}
	.btn.plain {
		margin-left: 0.5rem;
	}
	p {
		padding: 0 1.1rem;
	}
	.kinds {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		gap: 0.4rem;
		padding: 0 1.1rem;
	}
	.kinds .btn {
		width: 100%;
		justify-content: flex-start;
		text-align: left;
		white-space: normal;
	}
</style>
