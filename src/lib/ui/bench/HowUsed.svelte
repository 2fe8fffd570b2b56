<script lang="ts">
	/** How often screens were opened, and by how many; nobody's name. */
	import type { AppDocument } from '$lib/core/app/document.ts'
	import type { ScreenUse } from '$lib/core/requests/bench.ts'
	import { showDate } from '$lib/core/table/show-times.ts'
	import { countOf } from '$lib/core/text/count.ts'

	type Props = { openings: readonly ScreenUse[]; screens: AppDocument['screens'] }

	let { openings, screens }: Props = $props()

	const weeks = $derived([...new Set(openings.map(({ week }) => week))].sort().reverse())
	const rows = $derived(screens.filter(({ stands }) => stands !== 'only as lines of other screens'))

	function says(screen: string, week: string): string {
		const use = openings.find((each) => each.screen === screen && each.week === week)
		if (!use) return '–'
		const { times, people, byVisitors } = use
		const own =
			people === null
				? 'by fewer than five'
				: people === 0
					? ''
					: `${countOf(times ?? 0, 'time')} by ${countOf(people, 'person', 'people')}`
		const visits = byVisitors === 0 ? '' : `${countOf(byVisitors, 'time')} by visitors`
		return [own, visits].filter(Boolean).join(', ')
	}
</script>

<section>
	<h2>How it is used</h2>
	<p class="quiet">
		How often each screen was opened, by week. Who it was is kept nowhere, and of fewer than five people only that is
		said.
	</p>
	{#if weeks.length === 0}<p>Nobody has opened a screen of it in the last four weeks.</p>
	{:else}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="scroll" tabindex="0" role="region" aria-label="How it is used">
			<table class="ruled">
				<thead>
					<tr>
						<th scope="col">Screen</th>
						{#each weeks as week (week)}<th scope="col">Week of {showDate(week)}</th>{/each}
					</tr>
				</thead>
				<tbody>
					{#each rows as { id, title } (id)}
						<tr>
							<th scope="row">{title}</th>
							{#each weeks as week (week)}<td>{says(id, week)}</td>{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	{/if}
</section>

<style>
	.scroll {
		margin-top: 0.4rem;
		overflow-x: auto;
	}
	table {
		width: auto;
		min-width: min(100%, 36rem);
	}
</style>
