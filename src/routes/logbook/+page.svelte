<script lang="ts">
	import Ridge from '$lib/ui/frame/Ridge.svelte'
	import Logbook from '$lib/ui/logbook/Logbook.svelte'

	let { data } = $props()
</script>

<svelte:head><title>Logbook · {data.workspaceName}</title></svelte:head>

<Ridge title={data.workspaceName} workspace="Logbook" user={data.user} waiting={data.waiting} />
<Logbook page={data.page} asked={data.asked} whole={true} />
