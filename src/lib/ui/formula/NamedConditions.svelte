<script lang="ts">
	/** The named conditions of a table, to be put into the one that is being written. */
	type Props = {
		columns: readonly { readonly id: number; readonly name: string; readonly condition?: boolean }[]
		onuse: (name: string) => void
	}

	let { columns, onuse }: Props = $props()

	const named = $derived(columns.filter(({ condition }) => condition))
</script>

{#if named.length > 0}
	<p class="named">
		<span class="quiet">Named conditions</span>
		{#each named as { id, name } (id)}<button type="button" class="btn" onclick={() => onuse(name)}>{name}</button
			>{/each}
	</p>
{/if}

<style>
	.named {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.35rem;
		margin: 0.4rem 0;
	}
</style>
