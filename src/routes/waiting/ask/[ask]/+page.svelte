<script lang="ts">
	import AskSheet from '$lib/ui/asks/AskSheet.svelte'
	import WaitingPage from '$lib/ui/asks/WaitingPage.svelte'

	let { data } = $props()
</script>

<WaitingPage {data} waits={data.waits} open={data.sheet.id} isOpened>
	{#key data.sheet.id}<AskSheet sheet={data.sheet} />{/key}
</WaitingPage>
