<script lang="ts">
	import { untrack } from 'svelte'
	import { page } from '$app/state'
	import { useDraft } from '$lib/ui/bench/draft.svelte.ts'
	import FindLines from '$lib/ui/screens/FindLines.svelte'
	import { ScreenEdit } from '$lib/ui/screens/screen-edit.svelte.ts'
	import ScreenLedger from '$lib/ui/screens/ScreenLedger.svelte'
	import ScreenTabs from '$lib/ui/screens/ScreenTabs.svelte'
	import { ownLine } from '$lib/core/app/shared-lines.ts'
	import Lookout from '$lib/ui/lookout/Lookout.svelte'

	let { data } = $props()

	const edit = new ScreenEdit(useDraft(), () => data.bench.vocabulary)
	let pointed = $state('')

	// A screen that was found elsewhere is opened here.
	$effect(() => {
		const asked = page.url.searchParams.get('screen')
		const line = page.url.searchParams.get('line')
		if (asked !== null)
			untrack(() => {
				edit.chosen = asked
				if (line !== null) pointed = line
			})
	})

	const { screen } = $derived(edit)
</script>

<svelte:document oncopy={(event) => edit.copy(event)} onpaste={(event) => edit.paste(event)} />

<h1 class="visually-hidden">Screens of {edit.draft.document.name}</h1>
<div class="screens">
	<div class="lines">
		<ScreenTabs {edit} tables={data.bench.tables} />
		<FindLines
			draft={edit.draft}
			names={data.bench.vocabulary}
			onscreen={(id, line) => {
				edit.chosen = id
				pointed = line
			}}
		/>
		{#if screen}
			<header>
				<label class="visually-hidden" for="title">Title of the screen</label>
				<input
					id="title"
					class="title"
					value={screen.title}
					onchange={(event) => edit.changeScreen({ ...screen, title: event.currentTarget.value || 'Screen' })}
				/>
				<button
					class="btn plain"
					aria-label="Move screen towards the beginning"
					onclick={() => edit.stepScreen(screen.id, -1)}>◂</button
				>
				<button class="btn plain" aria-label="Move screen towards the end" onclick={() => edit.stepScreen(screen.id, 1)}
					>▸</button
				>
				<button class="btn plain" onclick={() => edit.removeScreen(screen.id)}>Remove screen</button>
			</header>
			<ScreenLedger {edit} {pointed} />
		{:else}
			<p class="none">
				There is no screen yet. Make a list, a record sheet and a form at once from a table, or start with an empty
				screen.
			</p>
		{/if}
	</div>
	<Lookout
		app={edit.draft.app}
		people={data.bench.people}
		screen={screen && edit.standsAlone ? screen.id : undefined}
		version={edit.draft.version}
		onpoint={(line) => (pointed = ownLine(line))}
	/>
</div>

<style>
	.screens {
		display: grid;
		grid-template-columns: minmax(22rem, 46fr) 54fr;
		flex: 1;
	}
	header {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		padding: 0.5rem 1rem 0.5rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	.title {
		flex: 1;
		border: 0;
		background: none;
		color: var(--pitch);
		font: 700 1.35rem var(--head);
		font-stretch: 90%;
		padding: 0.2rem 0;
		min-width: 0;
	}
	.none {
		padding: 1.5rem;
	}
	@media (max-width: 900px) {
		.screens {
			grid-template-columns: 1fr;
		}
	}
</style>
