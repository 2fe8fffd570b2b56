<script lang="ts">
	/** The screens where a thumb finds them: along the bottom of a phone as many as fit, down the left of a tablet all. */
	import type { OfferedScreen } from '$lib/core/requests/screens.ts'
	import Icon from '../Icon.svelte'

	type Props = {
		screens: readonly OfferedScreen[]
		base: string
		current: string | undefined
		/** Opens the contents, where the rest stands. */
		onmore: () => void
	}

	let { screens, base, current, onmore }: Props = $props()

	const UNDER_THUMB = 4
</script>

<nav aria-label="Screens, under the thumb" class:empty={screens.length === 0}>
	{#each screens as screen, at (screen.id)}
		<a
			href="{base}/{screen.id}"
			class:on={screen.id === current}
			class:more={at >= UNDER_THUMB}
			aria-current={screen.id === current ? 'page' : undefined}
			>{#if screen.icon}<Icon name={screen.icon} />{/if}<span>{screen.title}</span></a
		>
	{/each}
	{#if screens.length > UNDER_THUMB}<button onclick={onmore}>More</button>{/if}
</nav>

<style>
	nav {
		display: none;
	}
	a,
	button {
		display: grid;
		place-items: center;
		align-content: center;
		gap: 0.15rem;
		padding: 0.3rem;
		border: 0;
		background: none;
		color: var(--zinc-7);
		font: 600 0.9rem var(--head);
		text-align: center;
		text-decoration: none;
	}
	a.on {
		color: var(--pitch);
	}
	@media (min-width: 641px) and (max-width: 1023px) {
		nav:not(.empty) {
			position: sticky;
			top: 0;
			align-self: stretch;
			max-height: 100dvh;
			display: grid;
			align-content: start;
			overflow-y: auto;
			border-right: 1px solid var(--zinc-3);
			background: var(--limewash);
		}
		a {
			min-height: 64px;
			border-bottom: 1px solid var(--zinc-2);
		}
		a.on {
			background: var(--paper);
			box-shadow: inset 4px 0 0 var(--marigold);
		}
		button {
			display: none;
		}
	}
	@media (max-width: 640px) {
		nav:not(.empty) {
			position: fixed;
			z-index: 10;
			inset: auto 0 0 0;
			display: flex;
			background: var(--paper);
			border-top: 1px solid var(--pitch);
		}
		a,
		button {
			flex: 1;
			min-width: 0;
			min-height: 56px;
		}
		a.on {
			box-shadow: inset 0 3px 0 var(--marigold);
		}
		a.more {
			display: none;
		}
	}
</style>
