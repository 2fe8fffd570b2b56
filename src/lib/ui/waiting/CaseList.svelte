<script lang="ts" module>
	const TABS = [
		['waiting', 'Waiting'],
		['decided', 'Decided by me'],
		['asked', 'Asked by me']
	] as const
	const EMPTY = {
		waiting: 'No request waits for your decision.',
		decided: 'You have decided nothing yet.',
		asked: 'You have asked for nothing yet.'
	} as const
</script>

<script lang="ts">
	/** Requests that wait on somebody, that they decided, and that they asked for. */
	import type { CaseLists } from '$lib/core/requests/cases.ts'
	import { showAge } from '../dates.ts'
	import { toneOf } from './tone.ts'

	type Tab = keyof CaseLists
	type Props = {
		lists: CaseLists
		/** The request that is open beside the list. */
		open: string | undefined
	}

	let { lists, open }: Props = $props()

	let chosen = $state<Tab | undefined>()
	/** The list that the open request stands in, until another is chosen. */
	const tab = $derived(chosen ?? TABS.find(([key]) => lists[key].some((each) => each.id === open))?.[0] ?? 'waiting')
</script>

<div class="tabs" role="tablist">
	{#each TABS as [key, words] (key)}
		<button role="tab" aria-selected={tab === key} class:on={tab === key} onclick={() => (chosen = key)}
			>{words} <span class="quiet">{lists[key].length}</span></button
		>
	{/each}
</div>
{#each lists[tab] as item (item.id)}
	<a class="item" class:on={item.id === open} href="/waiting/{item.id}">
		<span>
			<strong>{item.label}</strong>
			<span class="quiet">{item.name} · from {item.askedBy}</span>
		</span>
		{#if item.state === 'waiting'}<span class="stamp info">{showAge(item.askedAt)}</span>{:else}<span
				class="stamp {toneOf(item.state)}">{item.state}</span
			>{/if}
	</a>
{:else}
	<p class="none">{EMPTY[tab]}</p>
{/each}

<style>
	.tabs {
		display: flex;
		border-bottom: 1px solid var(--zinc-3);
	}
	.tabs button {
		flex: 1;
		border: 0;
		border-bottom: 4px solid transparent;
		background: none;
		color: var(--zinc-7);
		font: 650 0.88rem var(--head);
		padding: 0.8rem 0.3rem 0.6rem;
		min-height: 48px;
	}
	.tabs button.on {
		color: var(--pitch);
		border-bottom-color: var(--marigold);
	}
	.item {
		display: flex;
		justify-content: space-between;
		align-items: flex-start;
		gap: 0.6rem;
		padding: 0.7rem 1rem 0.7rem 0.9rem;
		border-bottom: 1px solid var(--zinc-2);
		border-left: 4px solid transparent;
		color: inherit;
		text-decoration: none;
	}
	.item .quiet {
		display: block;
		font-size: 0.9rem;
	}
	.item.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.none {
		padding: 1rem;
	}
</style>
