<script lang="ts">
	/** The whole app to be read from front to back, on the screen or on paper. */
	import { printApp, type Bay } from '$lib/core/app/printed.ts'
	import { tablesOf } from '$lib/core/app/walk-app.ts'
	import { showDay } from '$lib/ui/dates.ts'
	import { useDraft } from '$lib/ui/bench/draft.svelte.ts'

	let { data } = $props()

	const draft = useDraft()
	const BAYS: Readonly<Record<Bay, string>> = { screens: 'Screens', routines: 'Routines', 'sign-offs': 'Sign-offs' }

	const parts = $derived(printApp(draft.document, data.bench.vocabulary))
	const bays = $derived(
		Object.entries(BAYS)
			.map(([bay, title]) => ({ title, parts: parts.filter((part) => part.bay === bay) }))
			.filter((each) => each.parts.length > 0)
	)
	const tables = $derived.by(() => {
		const used = new Set(tablesOf(draft.document).map(({ table }) => table))
		return data.bench.vocabulary.tables.filter(({ id }) => used.has(id))
	})
</script>

<article class="book">
	<header>
		<h1>{draft.document.name}</h1>
		{#if draft.document.about}<p>{draft.document.about}</p>{/if}
		<p class="quiet">
			The draft as it is on {showDay(data.readAt)}{draft.ahead ? ', ahead of what staff use' : ''}. Access is written
			table by table, and no part of this.
		</p>
		<button class="btn" onclick={() => print()}>Print it</button>
	</header>
	{#each bays as bay (bay.title)}
		<h2>{bay.title}</h2>
		{#each bay.parts as part (part.id)}
			<section>
				<h3>{part.title}</h3>
				<ol>
					{#each part.lines as line (line.id)}
						<li style:--level={line.level}>
							<span class="number">{line.number}</span>
							<span class="says"
								>{#each line.segments as segment, i (i)}{#if segment.kind === 'slot'}<strong
											class:mono={segment.mono}
											class:blank={!segment.filled}>{segment.text}</strong
										>{:else}{segment.text}{/if}{/each}</span
							>
						</li>
					{/each}
				</ol>
			</section>
		{/each}
	{/each}
	<h2>Tables that it uses</h2>
	{#each tables as table (table.id)}
		<section>
			<h3>{table.name}</h3>
			<p>{table.columns.map(({ name, type }) => `${name} (${type})`).join(', ')}.</p>
		</section>
	{/each}
</article>

<style>
	.book {
		max-width: 48rem;
		padding: 1.6rem 1.6rem 3rem;
	}
	header {
		display: grid;
		justify-items: start;
		gap: 0.5rem;
	}
	h2 {
		margin-top: 2rem;
		padding-bottom: 0.2rem;
		border-bottom: 3px double var(--pitch);
	}
	section {
		margin-top: 1rem;
	}
	ol {
		list-style: none;
		margin: 0.3rem 0 0;
		padding: 0;
		border-top: 1px solid var(--zinc-3);
	}
	li {
		display: grid;
		grid-template-columns: 2.4rem 1fr;
		border-bottom: 1px solid var(--zinc-2);
		break-inside: avoid;
	}
	.number {
		padding-top: 0.5rem;
		background: var(--limewash);
		color: var(--zinc-7);
		font: 500 0.72rem var(--mono);
		text-align: center;
	}
	.says {
		padding: 0.35rem 0 0.35rem calc(0.8rem + var(--level) * 1.4rem);
		color: var(--zinc-7);
	}
	strong {
		color: var(--pitch);
	}
	strong.blank {
		font-weight: 400;
	}
	.mono {
		font: 0.88em var(--mono);
	}
	@media print {
		.book {
			max-width: none;
			padding: 0;
		}
		h2,
		h3 {
			break-after: avoid;
		}
		.btn {
			display: none;
		}
	}
</style>
