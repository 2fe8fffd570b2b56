<script lang="ts">
	/** One of the icons, seen, or none. */
	import { ICONS, type Icon } from '$lib/core/text/icons.ts'
	import IconPicture from '../../Icon.svelte'
	import type { SlotProps } from './slot-props.ts'

	let { value, onchoose }: SlotProps<Icon> = $props()
</script>

<div class="icons">
	{#each ICONS as icon (icon)}
		<button class:on={icon === value} aria-label={icon} title={icon} onclick={() => onchoose(icon)}
			><IconPicture name={icon} /></button
		>
	{/each}
</div>

<style>
	.icons {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(2.6rem, 1fr));
		gap: 0.3rem;
	}
	button {
		display: grid;
		place-items: center;
		min-height: 2.6rem;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
	}
	button.on {
		background: var(--marigold-wash);
		border-color: var(--pitch);
	}
</style>
