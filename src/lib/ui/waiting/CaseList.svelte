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
	import WaitItem from './WaitItem.svelte'

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
	{@const waits = item.state === 'waiting'}
	<WaitItem
		href="/waiting/{item.id}"
		name={item.label}
		about="{item.name} · from {item.askedBy}"
		stamp={waits ? showAge(item.askedAt) : item.state}
		tone={waits ? 'info' : toneOf(item.state)}
		isOpen={item.id === open}
	/>
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
	.none {
		padding: 1rem;
	}
</style>
