<script lang="ts">
	/** A row that is not there, or not for whoever came by its link: which of them it is, is not said. They may ask. */
	import { page } from '$app/state'
	import AskForApp from '../../waiting/AskForApp.svelte'

	let { base, screen }: { base: string; screen: string } = $props()

	const user = $derived(page.data['user'] as { readonly isVisitor: boolean } | undefined)
	/** A visitor is nobody in particular, and a builder in the Lookout asks nobody. */
	const isAsking = $derived(base.startsWith('/app/') && user !== undefined && !user.isVisitor)
</script>

<div>
	<p>This row is not there, or not for you to see.</p>
	{#if isAsking}<AskForApp app={Number(base.slice('/app/'.length))} {screen} />{/if}
</div>

<style>
	div {
		max-width: 38rem;
		padding: 1.5rem 1.2rem;
	}
</style>
