<script lang="ts">
	/** Looks through every line of the app by the words that it says, and goes to it. */
	import { findInApp, printApp, type Bay, type Names } from '$lib/core/app/printed.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import type { DraftState } from '../bench/draft.svelte.ts'

	type Props = {
		draft: DraftState
		names: Names
		/** Called with a screen and the line of it that was chosen. */
		onscreen: (screen: string, line: string) => void
	}

	let { draft, names, onscreen }: Props = $props()

	const BAYS: Readonly<Record<Bay, string>> = { screens: 'Screen', routines: 'Routine', 'sign-offs': 'Sign-off' }

	let words = $state('')
	const parts = $derived(words.trim() === '' ? [] : findInApp(printApp(draft.document, names), words))
	const count = $derived(parts.reduce((sum, { lines }) => sum + lines.length, 0))

	function open(screen: string, line: string) {
		onscreen(screen, line)
		requestAnimationFrame(() => {
			const found = document.querySelector(`[data-line="${CSS.escape(line)}"]`)
			found?.scrollIntoView({ block: 'center' })
			found?.querySelector<HTMLElement>('button')?.focus()
		})
	}
</script>

<search>
	<input
		type="search"
		class="field"
		aria-label="Look through all lines of the app"
		placeholder="Look through all lines of the app"
		bind:value={words}
		onkeydown={(event) => event.key === 'Escape' && (words = '')}
	/>
	<a href="/bench/{draft.app}/book">Read the app as a book</a>
	{#if words.trim() !== ''}
		<p class="quiet" role="status">
			{parts.length === 0 ? 'No line of this app says that.' : `${countOf(count, 'line')} found.`}
		</p>
		{#each parts as { bay, id, title, lines } (bay + id)}
			<h3>{BAYS[bay]} {title}</h3>
			<ul>
				{#each lines as line (line.id)}
					<li>
						<span class="number">{line.number}</span>
						{#if bay === 'screens'}
							<button onclick={() => open(id, line.id)}>{line.text}</button>
						{:else}
							<a href="/bench/{draft.app}/{bay}">{line.text}</a>
						{/if}
					</li>
				{/each}
			</ul>
		{/each}
	{/if}
</search>

<style>
	search {
		display: block;
		padding: 0.5rem 1rem 0.3rem;
	}
	.field {
		width: calc(100% - 13rem);
		min-width: 12rem;
		margin-right: 0.8rem;
		max-width: 24rem;
	}
	h3 {
		font-size: 0.95rem;
		margin-top: 0.5rem;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: grid;
		grid-template-columns: 2.2rem 1fr;
		align-items: baseline;
		border-bottom: 1px solid var(--zinc-2);
	}
	.number {
		color: var(--zinc-7);
		font: 500 0.72rem var(--mono);
	}
	li button,
	li a {
		border: 0;
		background: none;
		padding: 0.35rem 0;
		font: inherit;
		color: var(--pitch);
		text-align: left;
		text-decoration: none;
	}
	li button:hover,
	li a:hover {
		background: var(--marigold-wash);
	}
</style>
