<script lang="ts">
	import AccessBay from '$lib/ui/access/AccessBay.svelte'
	import AccessMatrix from '$lib/ui/access/AccessMatrix.svelte'

	let { data } = $props()
</script>

{#if data.matrix}
	<AccessMatrix matrix={data.matrix} app={data.draft.id} />
{:else if data.table && data.sheet}
	{#key `${data.table.id} ${data.sheet.version}`}
		<AccessBay
			table={data.table}
			tables={data.owned}
			sheet={data.sheet}
			proposed={data.proposed}
			vocabulary={{ ...data.bench.vocabulary, screens: [], routines: [], signoffs: [] }}
			app={data.draft.id}
		/>
	{/key}
{:else}
	<p class="none">
		You keep no table yet. Bring one in at Sources, or make one at Tables; then say here who may see it.
	</p>
{/if}

<style>
	.none {
		padding: 2rem;
	}
</style>
