<script lang="ts">
	/** The frame of every page before somebody is in: the shed's ribbed front, and what there is to fill in. */
	import type { Snippet } from 'svelte'

	type Props = { workspace: string; children: Snippet }

	let { workspace, children }: Props = $props()
</script>

<div class="page">
	<header class="door">
		<svg width="56" height="48" viewBox="0 0 28 24" aria-hidden="true">
			<path d="M2 22V9l12-7 12 7v13z" fill="none" stroke="var(--marigold)" stroke-width="1.6" stroke-linejoin="round" />
			<path d="M7.5 21v-9M12 21V9.5M16 21V9.5M20.500 21v-9" stroke="var(--marigold)" stroke-width="1.300" />
		</svg>
		<p class="name">Tin Shed</p>
		<p class="where">{workspace}</p>
	</header>
	<main>{@render children()}</main>
</div>

<style>
	.page {
		display: grid;
		grid-template-columns: minmax(14rem, 24rem) 1fr;
		min-height: 100dvh;
	}
	.door {
		background-color: var(--page-header);
		background-image: var(--ribs);
		color: var(--page-header-text);
		padding: 3rem 2rem;
		display: flex;
		flex-direction: column;
		gap: 0.4rem;
	}
	.name {
		font-family: var(--head);
		font-stretch: 88%;
		font-weight: 750;
		font-size: 2rem;
		margin-top: 0.8rem;
	}
	.where {
		color: var(--page-header-quiet);
	}
	main {
		padding: 3rem 2.5rem;
		display: grid;
		gap: 1.4rem;
		align-content: start;
	}
	main :global(form) {
		display: grid;
		gap: 0.4rem;
		max-width: 22rem;
	}
	main :global(label) {
		font-weight: 600;
	}
	main :global(form .btn) {
		margin-top: 0.6rem;
		justify-self: start;
	}
	@media (max-width: 720px) {
		.page {
			grid-template-columns: 1fr;
			grid-template-rows: auto 1fr;
		}
		.door {
			padding: 1.2rem 1.5rem;
		}
		main {
			padding: 1.5rem;
		}
	}
</style>
