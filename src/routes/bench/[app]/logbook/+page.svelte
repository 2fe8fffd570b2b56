<script lang="ts">
	import Logbook from '$lib/ui/logbook/Logbook.svelte'

	let { data } = $props()
</script>

<Logbook page={data.page} asked={data.asked} whole={false} />
