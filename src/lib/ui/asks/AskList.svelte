<script lang="ts">
	/** What somebody is asked to fill in, what ends soonest first. */
	import type { AskSummary } from '$lib/core/requests/asks.ts'
	import { showAge, showMoment } from '../dates.ts'

	type Props = {
		asks: readonly AskSummary[]
		/** The one that is open beside the list. */
		open: string | undefined
	}

	let { asks, open }: Props = $props()
</script>

{#if asks.length > 0}
	<section aria-labelledby="asks">
		<h2 id="asks">Asked of you</h2>
		{#each asks as ask (ask.id)}
			<a class="item" class:on={ask.id === open} href="/waiting/ask/{ask.id}">
				<span>
					<strong>{ask.subject}</strong>
					<span class="quiet">{ask.label}{ask.endsAt === null ? '' : ` · by ${showMoment(ask.endsAt)}`}</span>
				</span>
				<span class="stamp info">{showAge(ask.askedAt)}</span>
			</a>
		{/each}
	</section>
{/if}

<style>
	section {
		border-bottom: 1px solid var(--zinc-3);
	}
	h2 {
		margin: 0;
		padding: 0.7rem 1rem 0.3rem;
		font: 700 0.95rem var(--head);
	}
	.item {
		display: flex;
		justify-content: space-between;
		align-items: flex-start;
		gap: 0.6rem;
		padding: 0.7rem 1rem 0.7rem 0.9rem;
		border-top: 1px solid var(--zinc-2);
		border-left: 4px solid transparent;
		color: inherit;
		text-decoration: none;
	}
	.item.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.quiet {
		display: block;
		font-size: 0.9rem;
	}
	.stamp {
		flex: none;
	}
</style>
