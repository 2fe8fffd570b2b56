<script lang="ts">
	/** Opens what finds anything, by Ctrl K from anywhere or by its button; its script comes with the first use. */
	import type { Component } from 'svelte'

	let Opened = $state.raw<Component<{ onclose: () => void }> | undefined>()

	let hasFailed = $state(false)

	async function open() {
		const loaded = await import('./FindAnything.svelte').catch(() => undefined)
		Opened = loaded?.default
		hasFailed = !loaded
	}

	function onkeydown(event: KeyboardEvent) {
		if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return
		event.preventDefault()
		void open()
	}
</script>

<svelte:window {onkeydown} />
<button class="find" title="Ctrl K" onclick={open}>{hasFailed ? 'No signal' : 'Go to…'}</button>
{#if Opened}<Opened onclose={() => (Opened = undefined)} />{/if}

<style>
	.find {
		align-self: center;
		min-height: 32px;
		padding: 0.2rem 0.8rem;
		border: 1px solid currentColor;
		border-radius: 3px;
		background: none;
		color: inherit;
		font: 600 0.85rem var(--head);
		opacity: 0.9;
	}
</style>
