<script lang="ts">
	/** What somebody is asked to fill in, what ends soonest first. */
	import type { AskSummary } from '$lib/core/requests/asks.ts'
	import { showAge, showMoment } from '../dates.ts'
	import WaitGroup from '../waiting/WaitGroup.svelte'
	import WaitItem from '../waiting/WaitItem.svelte'

	type Props = {
		asks: readonly AskSummary[]
		/** The one that is open beside the list. */
		open: string | undefined
	}

	let { asks, open }: Props = $props()
</script>

{#if asks.length > 0}
	<WaitGroup title="Asked of you">
		{#each asks as ask (ask.id)}
			<WaitItem
				href="/waiting/ask/{ask.id}"
				name={ask.subject}
				about={ask.endsAt === null ? ask.label : `${ask.label} · by ${showMoment(ask.endsAt)}`}
				stamp={showAge(ask.askedAt)}
				tone="info"
				isOpen={ask.id === open}
			/>
		{/each}
	</WaitGroup>
{/if}
