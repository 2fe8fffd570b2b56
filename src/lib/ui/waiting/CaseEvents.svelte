<script lang="ts">
	/** What has happened with a request. */
	import type { CaseSheet } from '$lib/core/requests/cases.ts'
	import { showMoment } from '../dates.ts'

	type Props = { events: CaseSheet['events'] }

	let { events }: Props = $props()
</script>

<h2>What has happened</h2>
<ol>
	{#each events as event (event.at + event.what)}
		<li>
			<strong>{event.who}</strong>
			{event.what}
			{#if event.comment}<q>{event.comment}</q>{/if}
			<span class="quiet">{showMoment(event.at)}</span>
		</li>
	{/each}
</ol>
<p class="quiet">From the asking on, the request is closed to changes. Every entry is sealed to the one before it.</p>

<style>
	ol {
		list-style: none;
		margin: 0.7rem 0;
		padding: 0 0 0 0.9rem;
		border-left: 2px solid var(--zinc-3);
		display: grid;
		gap: 0.8rem;
	}
	li .quiet,
	li q {
		display: block;
	}
</style>
