<script lang="ts">
	/** One thing that waits, in the list of all that does. */
	type Props = {
		href: string
		name: string
		/** What it is about, in a few words. */
		about: string
		/** How it stands, and how that is painted. */
		stamp: string
		tone: string
		isOpen?: boolean
	}

	let { href, name, about, stamp, tone, isOpen = false }: Props = $props()
</script>

<a class:on={isOpen} {href}>
	<span>
		<strong>{name}</strong>
		<span class="about">{about}</span>
	</span>
	<span class="stamp {tone}">{stamp}</span>
</a>

<style>
	a {
		display: flex;
		justify-content: space-between;
		align-items: flex-start;
		gap: 0.6rem;
		padding: 0.7rem 1rem 0.7rem 0.9rem;
		border-bottom: 1px solid var(--zinc-2);
		border-left: 4px solid transparent;
		color: inherit;
		text-decoration: none;
	}
	a.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.about {
		display: block;
		font-size: 0.9rem;
		color: var(--zinc-7);
	}
	.stamp {
		flex: none;
	}
</style>
