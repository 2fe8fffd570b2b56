<script lang="ts">
	/** The sign of a place: told apart by shape and by colour. */
	let { sign }: { sign: number | null } = $props()
</script>

<svg viewBox="0 0 16 16" width="16" height="16" class="g{sign ?? 0}" aria-hidden="true">
	{#if sign === 1}<path d="M8 1.5 14.5 14h-13z" />
	{:else if sign === 2}<rect x="2.5" y="2.5" width="11" height="11" />
	{:else if sign === 3}<path d="M8 1 15 8l-7 7-7-7z" />
	{:else if sign === 4}<path d="M8 14.5 1.5 2h13z" />
	{:else if sign === 5}<path d="M5.5 1.5h5v4h4v5h-4v4h-5v-4h-4v-5h4z" />
	{:else}<circle cx="8" cy="8" r="6.2" />{/if}
</svg>

<style>
	svg {
		flex: none;
		fill: var(--sea);
		stroke: var(--paper);
		stroke-width: 1.5;
		paint-order: stroke;
	}
	.g1 {
		fill: var(--plum);
	}
	.g2 {
		fill: var(--bottle);
	}
	.g3 {
		fill: var(--zinc-7);
	}
	.g4 {
		fill: var(--rope);
	}
	.g5 {
		fill: var(--pitch);
	}
</style>
