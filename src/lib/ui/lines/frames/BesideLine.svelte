<script lang="ts">
	import type { Snippet } from 'svelte'
	import type { ShownLine } from '$lib/core/requests/screens.ts'
	import type { Proportions } from '$lib/core/sentence/slots/all.ts'

	type Props = {
		line: { as: Proportions; lines: readonly ShownLine[] }
		inner: Snippet<[readonly ShownLine[]]>
	}

	let { line, inner }: Props = $props()

	const columns = $derived(
		line.as
			.split(' to ')
			.map((share) => `minmax(0, ${share}fr)`)
			.join(' ')
	)
</script>

<!-- By the width of its own place, not of the window: beside a list there is less. -->
<div class="place">
	<div class="beside" style:--columns={columns}>
		{#each line.lines as each (each.id)}<div class="cell">{@render inner([each])}</div>{/each}
	</div>
</div>

<style>
	.place {
		container-type: inline-size;
	}
	.beside {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
	}
	@container (min-width: 620px) {
		.beside {
			grid-template-columns: var(--columns);
		}
		.cell + .cell {
			border-left: 1px solid var(--zinc-2);
		}
	}
</style>
