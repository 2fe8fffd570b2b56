<script lang="ts">
	import { page } from '$app/state'
	import RunSheet from '$lib/ui/routines/RunSheet.svelte'
	import { showFigure } from '$lib/ui/count.ts'
	import { showMoment } from '$lib/ui/dates.ts'
	import { sayState } from '$lib/ui/routines/say-state.ts'

	let { data, form } = $props()

	const routine = $derived(data.asRan.routines.find(({ id }) => id === data.run.routine))
	const app = $derived(Number(page.params['app']))
</script>

<div class="runs">
	<nav aria-label="Runs of {routine?.name ?? 'this routine'}">
		<h2><a href="/bench/{app}/routines?routine={data.run.routine}">{routine?.name ?? 'A routine that is gone'}</a></h2>
		<ul>
			{#each data.runs as run (run.id)}
				{@const says = sayState(run)}
				<li>
					<a
						href="/bench/{app}/routines/{run.id}"
						class:on={run.id === data.run.id}
						aria-current={run.id === data.run.id ? 'page' : undefined}
						><span>{showFigure(run.id)} · {run.row || showMoment(run.beganAt)}</span>
						<span class="state">{says.text}</span></a
					>
				</li>
			{/each}
		</ul>
	</nav>
	<RunSheet run={data.run} {routine} document={data.asRan} names={data.bench.vocabulary} wrong={form?.message ?? ''} />
</div>

<style>
	.runs {
		display: grid;
		grid-template-columns: 15rem minmax(0, 1fr);
		flex: 1;
	}
	nav {
		background: var(--limewash);
		border-right: 1px solid var(--zinc-3);
		padding: 0.6rem 0;
	}
	h2 {
		margin: 0;
		padding: 0.2rem 1rem 0.5rem;
		font: 700 0.95rem var(--head);
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li a {
		display: flex;
		justify-content: space-between;
		gap: 0.6rem;
		min-height: 40px;
		align-items: center;
		padding: 0.3rem 1rem 0.3rem 1.1rem;
		border-left: 4px solid transparent;
		color: var(--pitch);
		text-decoration: none;
	}
	li a.on {
		border-left-color: var(--marigold);
		background: var(--paper);
		font-weight: 650;
	}
	.state {
		flex: none;
		font-size: 0.88rem;
		font-weight: 400;
		color: var(--zinc-7);
	}
	@media (max-width: 800px) {
		.runs {
			grid-template-columns: 1fr;
		}
	}
</style>
