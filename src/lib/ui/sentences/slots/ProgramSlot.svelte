<script lang="ts">
	/** The name of another program: one of those that stewards have put on the page of the workspace. */
	import { useProgramNames } from './program-names.ts'
	import type { SlotProps } from './slot-props.ts'
	import TextSlot from './TextSlot.svelte'

	let { value, onchoose, ...rest }: SlotProps<string> = $props()

	const names = useProgramNames()
</script>

<TextSlot {value} {onchoose} {...rest} />
{#if names().length === 0}
	<p class="quiet">There is none yet: a steward puts it on the page of the workspace.</p>
{:else}
	<ul>
		{#each names() as name (name)}
			<li><button type="button" class="btn plain" onclick={() => onchoose(name)}>{name}</button></li>
		{/each}
	</ul>
{/if}

<style>
	ul {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		margin: 0.4rem 0 0;
		padding: 0;
		list-style: none;
	}
</style>
