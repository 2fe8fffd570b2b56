<script lang="ts">
	/** An icon of the sprite, as tall as the words beside it; those say what it means. */
	import type { Icon } from '$lib/core/text/icons.ts'

	let { name }: { name: Icon } = $props()
</script>

<svg aria-hidden="true"><use href="/icons.svg#{name}" /></svg>

<style>
	svg {
		width: 1.25em;
		height: 1.25em;
		flex: none;
		fill: none;
		stroke: currentColor;
		stroke-width: 2;
		stroke-linecap: round;
		stroke-linejoin: round;
	}
</style>
