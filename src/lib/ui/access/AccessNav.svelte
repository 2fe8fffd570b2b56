<script lang="ts">
	/** The tables whose access a builder can open, and everybody at once. */
	type Props = {
		tables: readonly { readonly id: number; readonly name: string }[]
		app: number
		/** The table that is open; undefined where everybody is. */
		at: number | undefined
	}

	let { tables, app, at }: Props = $props()
</script>

<nav class="side" aria-label="Tables">
	<h2>Tables</h2>
	{#each tables as each (each.id)}
		<a href="/bench/{app}/access?table={each.id}" class:on={each.id === at}>{each.name}</a>
	{/each}
	<a class="all" class:on={at === undefined} href="/bench/{app}/access?everybody">Everybody, all tables</a>
	<p class="quiet">You keep these. Tables that others keep are theirs to open.</p>
</nav>

<style>
	.all {
		margin-top: 0.8rem;
	}
</style>
