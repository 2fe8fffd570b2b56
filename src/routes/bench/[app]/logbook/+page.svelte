<script lang="ts">
	import { showMoment } from '$lib/ui/dates.ts'

	let { data } = $props()
</script>

<div class="page">
	<header>
		<h1>Logbook</h1>
		<p>
			{#if data.broken === null}<span class="stamp good">sealed</span> Every entry fits the one before it.
			{:else}<span class="stamp bad">broken</span> Entry {data.broken} does not fit its seal: it, or one before it, was altered.{/if}
		</p>
	</header>
	<p class="quiet">
		What you did, and what happened to tables that you keep; the latest 200. What a cell said stands in its row's own
		history.
	</p>
	<table class="ruled">
		<thead><tr><th>When</th><th>Who</th><th>What</th><th>Where</th><th>Through</th><th>Seal</th></tr></thead>
		<tbody>
			{#each data.entries as entry (entry.seq)}
				<tr>
					<td>{showMoment(entry.at)}</td>
					<td><strong>{entry.who}</strong></td>
					<td>{entry.kind}</td>
					<td>{entry.table}</td>
					<td class="quiet">{entry.through}</td>
					<td class="mono quiet">{entry.seal.slice(0, 10)}</td>
				</tr>
			{:else}
				<tr><td colspan="6">Nothing has been written down yet.</td></tr>
			{/each}
		</tbody>
	</table>
</div>

<style>
	.page {
		padding: 1.1rem 1.5rem 2rem;
		display: grid;
		gap: 0.7rem;
	}
	header {
		display: flex;
		align-items: baseline;
		gap: 1rem;
	}
</style>
