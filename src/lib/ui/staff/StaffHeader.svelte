<script lang="ts">
	/** The head of an app: its name, behind which stands all that it has; its screens at a desk; what waits, and who one is. */
	import type { Component } from 'svelte'
	import type { StaffPage } from '$lib/core/requests/screens.ts'
	import FindKey from '../find/FindKey.svelte'
	import Icon from '../Icon.svelte'

	type Props = {
		page: StaffPage
		user: { name: string; isVisitor: boolean } | undefined
		waiting: number
		/** How many notices are not read. */
		unread: number
		/** The screen that is shown, or that the row was opened from. */
		current: string | undefined
		/** Whether the contents stand open. */
		isOpen: boolean
	}

	let { page, user, waiting, unread, current, isOpen = $bindable() }: Props = $props()

	/** Its script comes with the contents, which are opened now and then. */
	let LookOfPages = $state.raw<Component | undefined>()
	$effect(() => {
		if (isOpen) void import('../frame/LookOfPages.svelte').then((loaded) => (LookOfPages = loaded.default))
	})

	const { main, base } = $derived(page)
	/** A visitor is nobody in particular: nothing waits on them, and nothing is theirs elsewhere. */
	const isNamed = $derived(page.lookingAs === null && user !== undefined && !user.isVisitor)
	const notices = $derived(`Notices${unread > 0 ? ` · ${unread}` : ''}`)
	const waits = $derived(`Waiting on me${waiting > 0 ? ` · ${waiting}` : ''}`)
</script>

<header>
	<button class="name" aria-expanded={isOpen} onclick={() => (isOpen = !isOpen)}
		>{main.app.name} <span aria-hidden="true">▾</span></button
	>
	<nav aria-label="Screens">
		{#each main.screens as screen (screen.id)}
			<a
				href="{base}/{screen.id}"
				class:on={screen.id === current}
				aria-current={screen.id === current ? 'page' : undefined}
				>{#if screen.icon}<Icon name={screen.icon} />{/if}{screen.title}</a
			>
		{/each}
	</nav>
	<span class="gap"></span>
	{#if isNamed}
		<FindKey />
		<a class="waits" href="/waiting">{waits}</a>
	{/if}
	<span class="who">{page.lookingAs ?? (user?.isVisitor ? 'Visitor' : (user?.name ?? ''))}</span>
</header>
{#if isOpen}
	<nav class="contents" aria-label="All screens">
		{#each main.screens as screen (screen.id)}
			<a href="{base}/{screen.id}" onclick={() => (isOpen = false)}
				>{#if screen.icon}<Icon name={screen.icon} />{/if}{screen.title}</a
			>
		{/each}
		{#if isNamed}<a href="/waiting">{waits}</a><a href="/notices">{notices}</a><a href="/today">What I did today</a><a
				href="/">All apps</a
			>{/if}
		{#if LookOfPages}<div class="look"><LookOfPages /></div>{/if}
	</nav>
{/if}

<style>
	header {
		display: flex;
		align-items: stretch;
		gap: 1rem;
		min-height: 52px;
		padding: 0 1rem;
		background: light-dark(var(--paint), color-mix(in srgb, var(--paint) calc(45% - var(--strong) * 25%), #0e1512));
		color: #fff;
	}
	.name {
		border: 0;
		background: none;
		color: inherit;
		font: 700 1.15rem var(--head);
		font-stretch: 90%;
		padding: 0 0.4rem 0 0;
		white-space: nowrap;
	}
	/* The names of screens make room, and are moved; what stands round them stays whole. */
	header > :global(:not(nav)) {
		flex-shrink: 0;
	}
	.name span {
		font-size: 0.8rem;
		opacity: 0.8;
	}
	header nav {
		display: flex;
		gap: 0.2rem;
		min-width: 0;
		overflow-x: auto;
	}
	header nav a,
	.waits,
	.who {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		padding: 0 0.7rem;
		color: inherit;
		text-decoration: none;
		white-space: nowrap;
	}
	header nav a.on {
		font-weight: 700;
		box-shadow: inset 0 -4px 0 var(--marigold);
	}
	.gap {
		flex: 1;
	}
	.contents {
		display: grid;
		background: var(--paper);
		border-bottom: 1px solid var(--zinc-3);
	}
	.look {
		padding: 0.6rem 1.2rem;
	}
	.contents a {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		padding: 0.9rem 1.2rem;
		min-height: 48px;
		border-bottom: 1px solid var(--zinc-2);
		color: inherit;
		text-decoration: none;
	}
	/* Elsewhere they stand down the left, or under the thumb. */
	@media (max-width: 1023px) {
		header nav {
			display: none;
		}
	}
	@media (max-width: 640px) {
		.waits,
		.who {
			display: none;
		}
	}
</style>
