<script lang="ts">
	/** Pages that are read one after the other; the last key leads on. Whoever has read them finds them folded, where that is asked. */
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { giveOnScreen } from '../give-on-screen.ts'
	import { hasRead, noteRead } from './read-once.ts'
	import Words from '../text/Words.svelte'

	type Props = { line: Extract<ShownLine, { kind: 'welcome' }>; base: AppBase; path: ScreenPath }

	let { line, base, path }: Props = $props()

	const id = $props.id()
	let at = $state(0)
	let isAway = $state(false)
	let wrong = $state<string | undefined>()
	let heading = $state<HTMLElement>()
	const leaf = $derived(line.pages[Math.min(at, line.pages.length - 1)])
	const isLast = $derived(at >= line.pages.length - 1)
	/** Of one person on one device. */
	const key = $derived(`${base} ${line.id} ${String(page.data['draftsOf'] ?? '')}`)

	// What a device keeps is known only here, so the pages stand there at first for who hears or sees the page without it.
	$effect(() => {
		if (line.once && base.startsWith('/app/') && hasRead(key)) isAway = true
	})

	function step(by: 1 | -1) {
		at += by
		// Who hears the page hears the next one.
		requestAnimationFrame(() => heading?.focus())
	}

	async function end() {
		if (line.once && base.startsWith('/app/')) noteRead(key)
		const to = line.opens === null ? undefined : `${base}/${line.opens}`
		wrong = to !== undefined && line.gives ? await giveOnScreen(path, { line: line.id, to }) : undefined
		isAway = wrong === undefined
		if (to !== undefined && !line.gives) await goto(to)
	}
</script>

{#if isAway}
	<p class="again">
		<button
			class="btn plain"
			onclick={() => {
				at = 0
				isAway = false
			}}>Read the welcome again</button
		>
	</p>
{:else if leaf}
	<section class="leaf" aria-labelledby="{id}-title">
		{#if leaf.picture}<img src={appFileAddress(leaf.picture.sha, base)} alt={leaf.picture.says} />{/if}
		<div class="says">
			<h2 id="{id}-title" tabindex="-1" bind:this={heading}>{leaf.title}</h2>
			<Words html={leaf.html} />
		</div>
		<div class="keys">
			<p class="at" role="status">{line.pages.length > 1 ? `Page ${at + 1} of ${line.pages.length}` : ''}</p>
			{#if at > 0}<button class="btn" onclick={() => step(-1)}>Back</button>{/if}
			{#if wrong !== undefined}<p class="says-wrong" role="alert">{wrong}</p>{/if}
			{#if isLast}<button class="btn main" onclick={end}>{line.last}</button>
			{:else}<button class="btn main" onclick={() => step(1)}>Next</button>{/if}
		</div>
	</section>
{/if}

<style>
	.leaf {
		max-width: 46rem;
		padding: 0.6rem 1.2rem 1rem;
	}
	img {
		display: block;
		max-width: 100%;
		/* A plan that is cut off tells less than a small one. */
		max-height: 46vh;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
	.says {
		min-height: 7rem;
		/* The words bring margins of their own. */
		margin: 0 -1.2rem;
	}
	h2 {
		padding: 0.9rem 1.2rem 0.2rem;
		font-size: 1.5rem;
	}
	.keys {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.8rem;
	}
	.at {
		flex: 1;
		color: var(--zinc-7);
	}
	.btn {
		min-width: 7rem;
		min-height: 48px;
	}
	.again {
		padding: 0.3rem 1.2rem;
	}
	.again .btn {
		min-width: 0;
	}
</style>
