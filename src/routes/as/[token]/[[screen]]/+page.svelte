<script lang="ts">
	import StaffApp from '$lib/ui/staff/StaffApp.svelte'

	let { data } = $props()
</script>

<StaffApp page={data} user={data.user} waiting={data.waiting} />
