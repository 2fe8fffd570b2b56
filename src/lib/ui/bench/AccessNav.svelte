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

<nav aria-label="Tables">
	<h2>Tables</h2>
	{#each tables as each (each.id)}
		<a href="/bench/{app}/access?table={each.id}" class:on={each.id === at}>{each.name}</a>
	{/each}
	<a class="all" class:on={at === undefined} href="/bench/{app}/access?everybody">Everybody, all tables</a>
	<p class="quiet">You keep these. Tables that others keep are theirs to open.</p>
</nav>

<style>
	nav {
		background: var(--chalk);
		border-right: 1px solid var(--zinc-3);
		padding: 0.9rem 0;
	}
	nav h2,
	nav p {
		padding: 0 1rem;
		font-size: 0.92rem;
	}
	nav p {
		margin-top: 1rem;
	}
	nav a {
		display: block;
		padding: 0.3rem 1rem;
		color: inherit;
		text-decoration: none;
		font-family: var(--head);
		font-stretch: 92%;
		font-weight: 600;
		border-left: 4px solid transparent;
	}
	nav a.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	nav .all {
		margin-top: 0.8rem;
	}
</style>
