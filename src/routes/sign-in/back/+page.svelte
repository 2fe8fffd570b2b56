<script lang="ts">
	import Door from '$lib/ui/frame/Door.svelte'

	let { data } = $props()
</script>

<svelte:head><title>Sign in · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	<h1>You are not signed in</h1>
	<p class="says-wrong" role="alert">{data.message}</p>
	<p><a class="btn main" href="/sign-in">Sign in</a></p>
</Door>
