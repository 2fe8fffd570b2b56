<script lang="ts">
	import { page } from '$app/state'
	import SideList from '$lib/ui/bench/SideList.svelte'
	import RunSheet from '$lib/ui/routines/RunSheet.svelte'
	import { showMoment } from '$lib/ui/dates.ts'
	import { sayState } from '$lib/ui/routines/say-state.ts'

	let { data, form } = $props()

	const routine = $derived(data.asRan.routines.find(({ id }) => id === data.run.routine))
	const app = $derived(Number(page.params['app']))
	const items = $derived(
		data.runs.map((run) => ({
			...{ id: run.id, name: run.row || showMoment(run.beganAt), says: sayState(run).text },
			...{ isBad: run.state === 'given up', href: `/bench/${app}/routines/${run.id}` }
		}))
	)
</script>

<div class="runs">
	<nav aria-label="Runs of {routine?.name ?? 'this routine'}">
		<h2><a href="/bench/{app}/routines?routine={data.run.routine}">{routine?.name ?? 'A routine that is gone'}</a></h2>
		<SideList {items} open={data.run.id} />
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
	@media (max-width: 800px) {
		.runs {
			grid-template-columns: 1fr;
		}
	}
</style>
