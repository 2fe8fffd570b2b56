<script lang="ts">
	import AskSheet from '$lib/ui/asks/AskSheet.svelte'
	import WaitingPage from '$lib/ui/asks/WaitingPage.svelte'

	let { data } = $props()
</script>

<WaitingPage {data} waits={data.waits} open={data.sheet?.id} isOpened>
	{#if data.sheet}
		{#key data.sheet.id}<AskSheet sheet={data.sheet} />{/key}
	{:else}
		<p>{data.over}</p>
	{/if}
</WaitingPage>
