<script lang="ts">
	import StaffApp from '$lib/ui/staff/StaffApp.svelte'

	let { data } = $props()
</script>

<StaffApp page={data} components={data.components} user={data.user} waiting={data.waiting} />
