<script lang="ts">
	/**
	 * The app that staff use: the screens along the bottom of a phone, down the left of a tablet, along the top of a desk; a
	 * row opens beside its list where there is room, over it where there is not.
	 */
	import { allLines } from '$lib/core/app/lines/tree.ts'
	import type { ShownLine, StaffPage } from '$lib/core/requests/screens.ts'
	import { untrack } from 'svelte'
	import { page as here } from '$app/state'
	import { onTablesChanged } from '../follow.ts'
	import { loadComponents } from '../lines/components.ts'
	import type { LineComponents } from '../lines/line-component.ts'
	import { backToList, hasWords, heldIn, searchIn } from '../lines/screen-address.ts'
	import { provideShownNow } from '../lines/shown-now.svelte.ts'
	import { providePressNote } from '../lines/press-note.svelte.ts'
	import PressBar from './PressBar.svelte'
	import StaffHeader from './StaffHeader.svelte'
	import ThumbNav from './ThumbNav.svelte'
	import ScreenLines from './ScreenLines.svelte'

	type Props = {
		page: StaffPage
		components: LineComponents
		user: { name: string; isVisitor: boolean } | undefined
		waiting: number
	}

	let { page, components, user, waiting }: Props = $props()

	const { base } = $derived(page)
	const now = provideShownNow(
		untrack(() => page),
		loadComponents
	)
	const allComponents = $derived({ ...components, ...now.components })
	const { main, beside } = $derived(now)
	const shown = $derived({ ...page, main, beside })
	const current = $derived(page.from ?? main.screen?.id)
	/** Of its own; else the screen's title is one for who hears the page. */
	const hasHeading = $derived(
		allLines<ShownLine>(main.screen?.lines ?? []).some(({ kind }) => kind === 'heading' || kind === 'record')
	)
	/** As text, so that the same tables are not followed anew. */
	const tables = $derived([...new Set([...main.tables, ...(beside?.tables ?? [])])].sort((a, b) => a - b).join(','))
	const note = providePressNote(now)
	let contents = $state(false)
	const isSearching = $derived.by(() => {
		const { query, words } = searchIn(here.url)
		return query !== '' || words !== ''
	})
	/** A visitor is nobody in particular, and who is looked as keeps nothing. */
	const isSomebody = $derived(page.lookingAs === null && user !== undefined && !user.isVisitor)

	// Before anything is drawn of another screen.
	$effect.pre(() => {
		const [read, { hash }] = [page, here.url]
		untrack(() => void now.take(read, heldIn(here.url), hasWords(here.url) ? hash : ''))
	})

	// Follows the workspace's changes for as long as this screen is shown.
	$effect(() => {
		const followed = tables.split(',').filter(Boolean).map(Number)
		// A frame on the Bench is told of the draft by the page round it; a device of its own by the server.
		const look = base.startsWith('/as/') && window.parent === window ? base.slice(4) : undefined
		return onTablesChanged(followed, (changed) => void now.changedBy(changed, heldIn(here.url)), 80, look)
	})
</script>

<svelte:head>
	<title>{main.screen?.title ?? main.app.name} · {main.app.name}</title>
	{#if page.lookingAs === null}
		<link rel="manifest" href="{base}/manifest.webmanifest" crossorigin="use-credentials" />
		{#if main.app.hasIcon}
			<link rel="icon" href="{base}/icon.png" type="image/png" />
			<link rel="apple-touch-icon" href="{base}/icon.png?size=180" />
		{:else}<link rel="icon" href="{base}/icon.svg" type="image/svg+xml" />{/if}
	{/if}
</svelte:head>

<div class="app" class:noted={note.said !== undefined} style:--paint="var(--{main.app.colour})">
	{#if page.lookingAs !== null}
		{#await import('../lookout/LookoutBanner.svelte') then { default: LookoutBanner }}
			<LookoutBanner as={page.lookingAs} onCopy={page.onCopy} {main} onsay={(text) => note.say(text)} />
		{/await}
	{/if}
	<StaffHeader
		page={shown}
		{user}
		{waiting}
		unread={Number(here.data['unread'] ?? 0)}
		{current}
		bind:isOpen={contents}
	/>
	<div class="body">
		<ThumbNav screens={main.screens} {base} {current} onmore={() => (contents = !contents)} />
		<main class:split={beside?.screen}>
			{#if beside?.screen}
				<section class="list">
					<ScreenLines screen={beside.screen} {page} components={allComponents} selected={page.row} />
				</section>
			{/if}
			<section class="sheet">
				{#if main.screen}
					{#if beside?.screen || page.from}<a class="back" href={backToList(here.url, `${base}/${page.from}`)}
							>‹ Back to the list</a
						>{/if}
					{#if page.row === null && isSomebody && (main.kept.length > 0 || isSearching)}
						{#await import('./KeptSearches.svelte') then { default: KeptSearches }}
							<KeptSearches screen={main.screen} kept={main.kept} path={`${base}/${main.screen.id}`} />
						{/await}
					{/if}
					{#if !hasHeading}<h1 class="visually-hidden">{main.screen.title}</h1>{/if}
					{#key `${main.screen.id} ${page.row}`}<ScreenLines
							screen={main.screen}
							{page}
							components={allComponents}
							selected={null}
						/>{/key}
				{:else}
					{#await import('./NothingOpen.svelte') then { default: NothingOpen }}
						<NothingOpen app={main.app.id} isAsking={isSomebody} />
					{/await}
				{/if}
			</section>
		</main>
	</div>
	<PressBar {note} />
</div>

<style>
	.app {
		min-height: 100dvh;
		display: flex;
		flex-direction: column;
		background: var(--chalk);
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
	.body {
		flex: 1;
		display: flex;
		flex-direction: column;
	}
	/* On a tablet the screens stand down the left. */
	@media screen and (min-width: 641px) and (max-width: 1023px) {
		.body {
			display: grid;
			grid-template-columns: 7.5rem minmax(0, 1fr);
		}
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
	/* Nothing lies for good under the screens at the thumb, or under what came of the last press; nor what has the focus. */
	@media (max-width: 640px) {
		main {
			padding-bottom: 64px;
		}
		.noted main {
			padding-bottom: 148px;
		}
		:global(html:has(.app)) {
			scroll-padding-bottom: 148px;
		}
	}
</style>
