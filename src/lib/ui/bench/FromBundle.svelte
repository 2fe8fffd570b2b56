<script lang="ts">
	/** An app with its tables from another workspace: looked at first, then put in; who sees what of it is said afterwards. */
	import type { LookedAtBundle, PutBundle } from '$lib/core/requests/bundles.ts'
	import { MOST_BUNDLE_BYTES } from '$lib/core/app/bundle.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { joinWords } from '$lib/core/sentence/slots/names.ts'
	import { send } from '../send.ts'
	import StaysBehind from './StaysBehind.svelte'

	let given = $state.raw<{ readonly name: string; readonly text: string; readonly found: LookedAtBundle } | undefined>()
	let made = $state.raw<PutBundle | undefined>()
	let busy = $state('')
	let wrong = $state('')

	async function choose(input: HTMLInputElement) {
		const [file] = input.files ?? []
		input.value = ''
		if (!file) return
		given = made = undefined
		wrong = ''
		if (file.size > MOST_BUNDLE_BYTES) return void (wrong = 'This file is larger than 32 MB, and no bundle.')
		busy = 'Reading it…'
		const { name } = file
		const text = await file.text()
		const answer = await send('POST', '/bench/bundles', { kind: 'look', name, text })
		busy = ''
		if (answer.ok) given = { name, text, found: answer.value }
		else wrong = answer.refusal.message
	}

	async function put() {
		if (!given) return
		busy = 'Putting it in…'
		wrong = ''
		const { name, text } = given
		const answer = await send('POST', '/bench/bundles', { kind: 'put', name, text })
		busy = ''
		if (!answer.ok) return void (wrong = answer.refusal.message)
		made = answer.value
		given = undefined
	}
</script>

<section aria-labelledby="from-bundle">
	<h2 id="from-bundle">Or bring in a bundle</h2>
	<p class="quiet">An app with its tables and rows, saved from another workspace at <em>Release</em>.</p>
	<label class="btn"
		>Choose a bundle…<input
			class="visually-hidden"
			type="file"
			accept=".json,application/json"
			disabled={busy !== ''}
			onchange={(event) => choose(event.currentTarget)}
		/></label
	>
	{#if busy}<p class="quiet" role="status">{busy}</p>{/if}
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	{#if given}
		{@const { found } = given}
		<p>
			<strong>{given.name}</strong> makes the app <strong>{found.app}</strong> with {countOf(
				found.screens.length,
				'screen'
			)}, and
			{found.tables.length === 0 ? 'no table' : 'these tables'}:
		</p>
		{#if found.tables.length > 0}
			<table class="ruled">
				<thead><tr><th>Table</th><th>Columns</th><th>Rows</th><th>Lines of access, to be taken</th></tr></thead>
				<tbody>
					{#each found.tables as { name, columns, rows, lines }, i (i)}
						<tr><th scope="row">{name}</th><td>{columns}</td><td>{rows.toLocaleString('en-GB')}</td><td>{lines}</td></tr
						>
					{/each}
				</tbody>
			</table>
		{/if}
		<p class="quiet">
			You will keep the tables, and nobody else sees them until you take and save their lines of access.
			{#if found.strange.length > 0}
				There {found.strange.length === 1 ? 'is no role' : 'are no roles'}
				{joinWords(found.strange, 'or')} here: what is for them alone is for builders at first.
			{/if}
		</p>
		<div class="ways">
			<button class="btn main" disabled={busy !== ''} onclick={put}>Put it in</button>
			<button class="btn" onclick={() => (given = undefined)}>Leave it</button>
		</div>
	{/if}
	{#if made}
		<p role="status">
			<span class="stamp good">put in</span>
			{countOf(made.tables.length, 'table')} with {countOf(made.rows, 'row')}.
			<a href="/bench/{made.app}/screens">Look at its screens</a>, then say who sees what:
		</p>
		<ul>
			{#each made.tables as { id, name } (id)}
				<li><a href="/bench/{made.app}/access?table={id}">Who may see {name}</a></li>
			{/each}
		</ul>
		{#if made.leftOut.length > 0}
			<p>Left out, as it cannot be worked out here:</p>
			<StaysBehind says={made.leftOut} />
		{/if}
	{/if}
</section>

<style>
	section {
		display: grid;
		gap: 0.7rem;
		justify-items: start;
		padding-top: 1.4rem;
		border-top: 1px solid var(--pitch);
	}
	label:focus-within {
		outline: 3px solid var(--marigold);
	}
	table {
		width: auto;
		min-width: min(100%, 36rem);
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
	}
	ul {
		margin: 0;
		padding-left: 1.2rem;
	}
	li {
		min-height: 1.8rem;
	}
</style>
