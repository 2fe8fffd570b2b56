<script lang="ts">
	/**
	 * The app that staff use: the screens along the bottom of a phone, down the left of a tablet, along the top of a desk; a
	 * row opens beside its list where there is room, over it where there is not.
	 */
	import type { StaffPage } from '$lib/core/requests/screens.ts'
	import { invalidateAll } from '$app/navigation'
	import { sightsOf } from '../lookout/sights.ts'
	import { READ_AGAIN, tellBench } from '../lookout/tell-bench.ts'
	import { page as here } from '$app/state'
	import { followTables } from '../follow.ts'
	import { backToList } from '../lines/screen-address.ts'
	import { providePressNote } from '../lines/press-note.svelte.ts'
	import FindKey from '../find/FindKey.svelte'
	import Icon from '../Icon.svelte'
	import PressBar from './PressBar.svelte'
	import ScreenLines from './ScreenLines.svelte'

	type Props = {
		page: StaffPage
		user: { name: string; isVisitor: boolean } | undefined
		waiting: number
	}

	let { page, user, waiting }: Props = $props()

	/** As many as fit under a thumb; the rest are on the contents page behind the app's name. */
	const UNDER_THUMB = 4

	const { main, beside, base } = $derived(page)
	const current = $derived(page.from ?? main.screen?.id)
	const tables = $derived([...new Set([...main.tables, ...(beside?.tables ?? [])])])
	const note = providePressNote()
	let contents = $state(false)

	// The Bench round a frame of the Lookout compares what two people get.
	$effect(() => {
		if (page.lookingAs !== null) tellBench({ tinShedSees: sightsOf(main) })
	})

	function onmessage({ origin, data }: MessageEvent) {
		if (page.lookingAs !== null && origin === window.location.origin && data === READ_AGAIN) void invalidateAll()
	}

	// Follows the workspace's changes for as long as this screen is shown.
	$effect(() => followTables(tables))
</script>

<svelte:window {onmessage} />
<svelte:head><title>{main.screen?.title ?? main.app.name} · {main.app.name}</title></svelte:head>

<div class="app" style:--paint="var(--{main.app.colour})">
	{#if page.lookingAs !== null}
		<p class="looking">
			Lookout: as {page.lookingAs} sees it{page.onCopy
				? ', on a copy of the data. Nothing leaves it.'
				: '. What you do here is done on a copy of the data.'}
		</p>
	{/if}
	<header>
		<button class="name" aria-expanded={contents} onclick={() => (contents = !contents)}
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
		{#if page.lookingAs === null}
			{#if user && !user.isVisitor}<FindKey />{/if}
			<a class="waits" href="/waiting">Waiting on me{waiting > 0 ? ` · ${waiting}` : ''}</a>
		{/if}
		<span class="who">{page.lookingAs ?? user?.name ?? ''}</span>
	</header>
	{#if contents}
		<nav class="contents" aria-label="All screens">
			{#each main.screens as screen (screen.id)}
				<a href="{base}/{screen.id}" onclick={() => (contents = false)}
					>{#if screen.icon}<Icon name={screen.icon} />{/if}{screen.title}</a
				>
			{/each}
			{#if page.lookingAs === null}<a href="/waiting">Waiting on me{waiting > 0 ? ` · ${waiting}` : ''}</a><a
					href="/today">What I did today</a
				><a href="/">All apps</a>{/if}
		</nav>
	{/if}
	<main class:split={beside?.screen}>
		{#if beside?.screen}
			<section class="list"><ScreenLines screen={beside.screen} {page} selected={page.row} /></section>
		{/if}
		<section class="sheet">
			{#if main.screen}
				{#if beside?.screen || page.from}<a class="back" href={backToList(here.url, `${base}/${page.from}`)}
						>‹ Back to the list</a
					>{/if}
				{#key `${main.screen.id} ${page.row}`}<ScreenLines screen={main.screen} {page} selected={null} />{/key}
			{:else}
				<p class="none">Nothing in this app is open to you yet. Ask whoever looks after it to give you a role.</p>
			{/if}
		</section>
	</main>
	<PressBar {note} />
	<nav class="thumb" aria-label="Screens, under the thumb">
		{#each main.screens as screen, at (screen.id)}
			<a
				href="{base}/{screen.id}"
				class:on={screen.id === current}
				class:more={at >= UNDER_THUMB}
				aria-current={screen.id === current ? 'page' : undefined}
				>{#if screen.icon}<Icon name={screen.icon} />{/if}<span>{screen.title}</span></a
			>
		{/each}
		{#if main.screens.length > UNDER_THUMB}<button onclick={() => (contents = !contents)}>More</button>{/if}
	</nav>
</div>

<style>
	.app {
		min-height: 100dvh;
		display: flex;
		flex-direction: column;
		background: var(--chalk);
	}
	.looking {
		background: var(--marigold);
		color: #16201b;
		padding: 0.3rem 1rem;
		font-size: 0.88rem;
	}
	header {
		display: flex;
		align-items: stretch;
		gap: 1rem;
		min-height: 52px;
		padding: 0 1rem;
		background: var(--paint);
		color: #fff;
	}
	:global(:root:not([data-theme='light'])) header {
		color: #fff;
	}
	@media (prefers-color-scheme: dark) {
		:global(:root:not([data-theme='light'])) header {
			background: color-mix(in srgb, var(--paint) 45%, #0e1512);
		}
	}
	.name {
		border: 0;
		background: none;
		color: inherit;
		font: 700 1.15rem var(--head);
		font-stretch: 90%;
		padding: 0 0.4rem 0 0;
	}
	.name span {
		font-size: 0.8rem;
		opacity: 0.8;
	}
	header nav {
		display: flex;
		gap: 0.2rem;
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
	main {
		flex: 1;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		align-items: start;
	}
	.sheet {
		width: 100%;
		padding-bottom: 2rem;
	}
	.back {
		display: inline-block;
		padding: 0.8rem 1.2rem 0;
	}
	.none {
		padding: 2rem 1.2rem;
	}
	.thumb {
		display: none;
	}
	@media (min-width: 900px) {
		main.split {
			grid-template-columns: minmax(20rem, 26rem) 1fr;
			align-items: stretch;
		}
		main.split .list {
			position: sticky;
			top: 0;
			border-right: 1px solid var(--zinc-3);
			height: 100dvh;
			overflow: auto;
		}
		main.split .back {
			display: none;
		}
	}
	@media (max-width: 899px) {
		.list {
			display: none;
		}
	}
	/* Before the sheet in reading order on a tablet, after it under the thumb. */
	@media (min-width: 641px) and (max-width: 1023px) {
		.app {
			display: grid;
			grid-template-columns: 7.5rem minmax(0, 1fr);
			grid-template-rows: auto auto auto 1fr;
			align-items: start;
		}
		.app > :global(*) {
			grid-column: 1 / -1;
		}
		header nav {
			display: none;
		}
		main {
			grid-column: 2;
			grid-row: 4;
			min-height: 100%;
		}
		.thumb {
			grid-column: 1;
			grid-row: 4;
			position: sticky;
			top: 0;
			display: grid;
			align-self: stretch;
			align-content: start;
			border-right: 1px solid var(--zinc-3);
			background: var(--limewash);
		}
		.thumb a {
			min-height: 64px;
			border-bottom: 1px solid var(--zinc-2);
		}
		.thumb a.on {
			background: var(--paper);
			box-shadow: inset 4px 0 0 var(--marigold);
		}
		.thumb button {
			display: none;
		}
	}
	.thumb a {
		display: grid;
		place-items: center;
		align-content: center;
		gap: 0.15rem;
		padding: 0.3rem;
		color: var(--zinc-7);
		font: 600 0.9rem var(--head);
		text-align: center;
		text-decoration: none;
	}
	.thumb a.on {
		color: var(--pitch);
	}
	@media (max-width: 640px) {
		.thumb a.more {
			display: none;
		}
		header nav,
		.waits,
		.who {
			display: none;
		}
		main {
			padding-bottom: 64px;
		}
		.thumb {
			position: fixed;
			z-index: 10;
			inset: auto 0 0 0;
			display: flex;
			background: var(--paper);
			border-top: 1px solid var(--pitch);
		}
		.thumb a,
		.thumb button {
			flex: 1;
			min-width: 0;
			min-height: 56px;
		}
		.thumb button {
			border: 0;
			background: none;
			color: var(--zinc-7);
			font: 600 0.9rem var(--head);
		}
		.thumb a.on {
			box-shadow: inset 0 3px 0 var(--marigold);
		}
	}
</style>
