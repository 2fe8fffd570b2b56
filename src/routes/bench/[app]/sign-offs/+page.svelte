<script lang="ts">
	import { vocabularyOf } from '$lib/core/app/printed.ts'
	import { asLine, fromLine } from '$lib/core/sentence/line-values.ts'
	import type { Signoff } from '$lib/core/app/document.ts'
	import { SIGNOFF_LINE } from '$lib/core/signoff/sentence.ts'
	import { newId, useDraft } from '$lib/ui/bench/draft.svelte.ts'
	import SentenceLine from '$lib/ui/sentences/SentenceLine.svelte'

	let { data } = $props()

	const draft = useDraft()
	const signoffs = $derived(draft.document.signoffs)
	const vocabulary = $derived(vocabularyOf(draft.document, data.bench.vocabulary))

	function put(next: Signoff) {
		draft.change({ ...draft.document, signoffs: signoffs.map((each) => (each.id === next.id ? next : each)) })
	}

	function add() {
		const table = vocabulary.tables[0]
		if (!table) return
		const columns = table.columns
			.filter((column) => !column.condition)
			.slice(0, 4)
			.map((column) => column.id)
		const fresh = { id: newId(), name: 'New sign-off', table: table.id, where: '', decider: '', columns, children: [] }
		draft.change({ ...draft.document, signoffs: [...signoffs, fresh] })
	}

	function remove(id: string) {
		draft.change({ ...draft.document, signoffs: signoffs.filter((each) => each.id !== id) })
	}
</script>

<div class="bay">
	<header>
		<h1>Sign-offs</h1>
		<p class="quiet">Rows that wait until somebody has decided them. From the asking on they are closed to changes.</p>
	</header>
	{#each signoffs as signoff, i (signoff.id)}
		<section>
			<div class="head">
				<input
					aria-label="Name of the sign-off"
					value={signoff.name}
					onchange={(event) => put({ ...signoff, name: event.currentTarget.value || 'Sign-off' })}
				/>
				<button class="btn plain" onclick={() => remove(signoff.id)}>Remove sign-off</button>
			</div>
			<SentenceLine
				kind={SIGNOFF_LINE.kind}
				line={asLine(signoff)}
				{vocabulary}
				number={i + 1}
				onchange={(next) => put(fromLine<Signoff>(next))}
			/>
			<p class="note quiet">
				The person decides with Approve or Decline and a comment; whoever asked is told. Nobody decides their own
				request.
			</p>
		</section>
	{:else}
		<p class="none">There is no sign-off yet.</p>
	{/each}
	<p class="none"><button class="btn" onclick={add}>Add a sign-off</button></p>
</div>

<style>
	.bay {
		max-width: 68rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.2rem 1rem;
		padding: 0.9rem 1.3rem;
	}
	section {
		border-top: 1px solid var(--pitch);
		margin-bottom: 1.2rem;
	}
	.head {
		display: flex;
		gap: 1rem;
		padding: 0.4rem 1rem 0.4rem 3.4rem;
		border-bottom: 1px solid var(--zinc-2);
	}
	.head input {
		flex: 1;
		border: 0;
		background: none;
		color: var(--pitch);
		font: 700 1.1rem var(--head);
		padding: 0.2rem 0;
	}
	.note {
		padding: 0.5rem 1rem 0.5rem 3.4rem;
	}
	.none {
		padding: 0.5rem 1.3rem;
	}
</style>
