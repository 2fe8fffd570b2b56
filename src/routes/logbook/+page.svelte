<script lang="ts">
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import Logbook from '$lib/ui/logbook/Logbook.svelte'

	let { data } = $props()
</script>

<svelte:head><title>Logbook · {data.workspaceName}</title></svelte:head>

<PageHeader title={data.workspaceName} workspace="Logbook" user={data.user} waiting={data.waiting} />
<main><Logbook page={data.page} asked={data.asked} whole={true} /></main>
