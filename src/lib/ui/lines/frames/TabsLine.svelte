<script lang="ts">
	/** One tab at a time. The arrow keys go from tab to tab, as the ARIA pattern has it. */
	import type { Snippet } from 'svelte'
	import type { ShownLine } from '$lib/core/requests/screens.ts'

	type Props = { line: { lines: readonly ShownLine[] }; inner: Snippet<[readonly ShownLine[]]> }

	let { line, inner }: Props = $props()

	const id = $props.id()
	const tabs = $derived(line.lines.filter((each) => each.kind === 'tab'))
	let chosen = $state('')
	const current = $derived(tabs.find((tab) => tab.id === chosen) ?? tabs[0])

	function onkeydown(event: KeyboardEvent & { currentTarget: HTMLElement }) {
		const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
		const at = tabs.findIndex((tab) => tab.id === current?.id)
		const next = tabs[(at + by + tabs.length) % tabs.length]
		if (by === 0 || !next) return
		event.preventDefault()
		chosen = next.id
		event.currentTarget.querySelector<HTMLElement>(`[data-tab="${next.id}"]`)?.focus()
	}
</script>

<div class="bar" role="tablist" tabindex="-1" {onkeydown}>
	{#each tabs as tab (tab.id)}
		{@const isOn = tab.id === current?.id}
		<button
			role="tab"
			id="{id}-{tab.id}"
			data-tab={tab.id}
			aria-selected={isOn}
			aria-controls="{id}-panel"
			tabindex={isOn ? 0 : -1}
			class:on={isOn}
			onclick={() => (chosen = tab.id)}>{tab.title}</button
		>
	{/each}
</div>
<div role="tabpanel" id="{id}-panel" aria-labelledby={current && `${id}-${current.id}`}>
	{#if current}{#key current.id}{@render inner(current.lines)}{/key}{/if}
</div>

<style>
	.bar {
		display: flex;
		overflow-x: auto;
		padding: 0.6rem 1.2rem 0;
		border-bottom: 1px solid var(--zinc-3);
	}
	button {
		min-height: 48px;
		padding: 0.4rem 1.1rem;
		border: 1px solid transparent;
		border-bottom: 0;
		background: none;
		color: var(--zinc-7);
		font: 600 1rem var(--head);
		white-space: nowrap;
	}
	button.on {
		border-color: var(--zinc-3);
		border-radius: 3px 3px 0 0;
		background: var(--paper);
		color: var(--pitch);
		box-shadow: inset 0 3px 0 var(--marigold);
	}
</style>
