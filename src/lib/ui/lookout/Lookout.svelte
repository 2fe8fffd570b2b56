<script lang="ts">
	/** The real app beside the lines, as two people see it, each on the width of the device they use. */
	import { untrack } from 'svelte'
	import type { Looked } from './choose-lookers.ts'
	import { Followers } from './followers.svelte.ts'
	import LookAs from './LookAs.svelte'
	import { Looks } from './looks.svelte.ts'

	type Props = {
		app: number
		people: readonly Looked[]
		screen: string | undefined
		/** The version of the draft: the frames read again with each. */
		version: number
		/** Called with the line that is pointed at. */
		onpoint: (line: string) => void
	}

	let { app, people, screen, version, onpoint }: Props = $props()

	const followers = new Followers()
	const looks = untrack(() => new Looks(app, () => people))
	let room = $state(600)

	// Asks the server for the two views, once, when the Lookout opens.
	$effect(() => {
		untrack(() => void Promise.all([looks.open(), followers.read()]))
	})

	// The draft may come to show other tables, and lines are written elsewhere on the Bench: asks the server again.
	$effect(() => {
		void screen
		untrack(() => {
			if (looks.seeing) void looks.lookAgain()
		})
	})

	$effect(() => {
		const saved = version
		untrack(() => looks.readAgain(saved))
	})

	function onmessage(event: MessageEvent) {
		const line = looks.hear(event)
		if (line !== undefined) onpoint(line)
	}
</script>

<svelte:window {onmessage} />

<section class="lookout" aria-label="Lookout" bind:clientWidth={room}>
	<header>
		<h2>Lookout</h2>
		<p class="quiet">the draft, as these people see it, on a copy of the data</p>
		<span class="gap"></span>
		{#if looks.isTried}
			<button class="btn" onclick={() => looks.beginAfresh()}>Begin with a fresh copy</button>
		{/if}
	</header>
	{#each looks.views as view, at (at)}
		<LookAs
			{looks}
			{followers}
			{view}
			{app}
			{people}
			{screen}
			{room}
			beside={at === 1 && looks.areBothSeen ? apart : undefined}
		/>
	{/each}
</section>

{#snippet apart()}
	<div class="apart" role="status">
		<h3>{looks.apart.length > 0 ? 'Not the same for both' : 'The same for both'}</h3>
		{#each looks.apart as each (each)}<p>{each}</p>{:else}<p class="quiet">
				Both get the same rows, columns and buttons of this screen.
			</p>{/each}
	</div>
{/snippet}

<style>
	.lookout {
		background-color: var(--limewash);
		background-image: var(--ribs-light);
		border-left: 1px solid var(--zinc-3);
		padding: 0.9rem 1.4rem 2rem;
		display: flex;
		flex-direction: column;
		gap: 0.6rem;
		min-width: 0;
	}
	header {
		display: flex;
		align-items: baseline;
		gap: 0.7rem;
	}
	.gap {
		flex: 1;
	}
	.apart {
		flex: 1 1 12rem;
		display: grid;
		gap: 0.25rem;
		font-size: 0.92rem;
	}
</style>
