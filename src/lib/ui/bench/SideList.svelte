<script lang="ts">
	/** What can be opened at the side of a bay: routines, or the runs of one; each with a word on how it stands. */
	type Item = {
		readonly id: string
		readonly name: string
		readonly says: string
		/** Whether it needs somebody. */
		readonly isBad: boolean
		/** Where it leads; without, it is opened here. */
		readonly href?: string
	}
	type Props = { items: readonly Item[]; open: string | undefined; onopen?: (id: string) => void }

	let { items, open, onopen }: Props = $props()
</script>

<ul>
	{#each items as { id, name, says, isBad, href } (id)}
		<li>
			<svelte:element
				this={href ? 'a' : 'button'}
				{href}
				role={href ? undefined : 'button'}
				class="item"
				class:on={id === open}
				aria-current={id === open ? 'page' : undefined}
				onclick={() => onopen?.(id)}
			>
				<span class="name">{name}</span> <span class="says" class:bad={isBad}>{says}</span>
			</svelte:element>
		</li>
	{/each}
</ul>

<style>
	ul {
		list-style: none;
		margin: 0 0 0.6rem;
		padding: 0;
	}
	.item {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 0.6rem;
		width: 100%;
		min-height: 40px;
		padding: 0.35rem 1rem 0.35rem 1.1rem;
		border: 0;
		border-left: 4px solid transparent;
		background: none;
		color: var(--pitch);
		font: inherit;
		text-align: left;
		text-decoration: none;
	}
	.item.on {
		border-left-color: var(--marigold);
		background: var(--paper);
		font-weight: 650;
	}
	.name {
		min-width: 0;
		overflow-wrap: anywhere;
	}
	.says {
		flex: none;
		font-size: 0.88rem;
		font-weight: 400;
		color: var(--zinc-7);
	}
	.says.bad {
		color: var(--oxide);
		font-weight: 650;
	}
</style>
