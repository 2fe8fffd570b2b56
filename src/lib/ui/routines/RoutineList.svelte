<script lang="ts">
	/** The routines of an app, each with whether it starts at present, and the ways to begin a new one. */
	import { STARTS, type Start } from '$lib/core/routine/routine.ts'
	import type { RoutineState } from '$lib/core/requests/runs.ts'
	import type { RoutineEdit } from './routine-edit.svelte.ts'

	type Props = { edit: RoutineEdit; states: readonly RoutineState[] }

	let { edit, states }: Props = $props()

	const stateOf = (id: string) => states.find(({ routine }) => routine === id)

	function says(state: RoutineState | undefined): { readonly text: string; readonly tone: string } {
		if (!state?.isLive) return { text: 'not released', tone: 'later' }
		if (state.paused !== null) return { text: state.paused === '' ? 'paused' : 'stopped', tone: 'past' }
		if (state.givenUp > 0) return { text: `${state.givenUp} given up`, tone: 'past' }
		return { text: 'on', tone: 'sound' }
	}

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
	<ul>
		{#each edit.routines as { id, name } (id)}
			{@const state = says(stateOf(id))}
			<li>
				<button class:on={edit.routine?.id === id} onclick={() => (edit.chosen = id)}>
					<span class="name">{name}</span> <span class="state {state.tone}">{state.text}</span>
				</button>
			</li>
		{/each}
	</ul>
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
	li button:not(.btn) {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 0.6rem;
		width: 100%;
		min-height: 40px;
		padding: 0.35rem 1rem 0.35rem 1.1rem;
		border: 0;
		border-left: 4px solid transparent;
		background: none;
		color: var(--pitch);
		font: inherit;
		text-align: left;
	}
	li button.on {
		border-left-color: var(--marigold);
		background: var(--paper);
		font-weight: 650;
	}
	.name {
		min-width: 0;
		overflow-wrap: anywhere;
	}
	.state {
		flex: none;
		font-size: 0.88rem;
		font-weight: 400;
		color: var(--zinc-7);
	}
	.state.past {
		color: var(--oxide);
		font-weight: 650;
	}
	.btn.plain {
		margin-left: 0.5rem;
	}
	p {
		padding: 0 1.1rem;
	}
	.kinds {
		display: grid;
		gap: 0.4rem;
		padding: 0 1.1rem;
	}
	.kinds .btn {
		width: 100%;
		text-align: left;
	}
</style>
