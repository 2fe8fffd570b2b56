<script lang="ts">
	/** Who did what, when and through what: searched by words and days, with the seals checked when asked. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { LogPage } from '$lib/core/requests/logbook.ts'
	import { showMoment } from '../dates.ts'
	import { ask } from '../send.ts'
	import LogDays from './LogDays.svelte'
	import { showFigure } from '../count.ts'

	type Props = {
		page: LogPage
		/** What was asked for, as it stands in the address. */
		asked: { readonly find: string; readonly from: string; readonly to: string }
		/** Whether this is all of it, or what one did and keeps. */
		whole: boolean
	}

	let { page, asked, whole }: Props = $props()

	/** What was tried and did not come to be. */
	const BAD = new Set(['sign in failed', 'refused'])

	let checked = $state.raw<{ broken: number | null; entries: number } | undefined>()
	let busy = $state(false)
	let wrong = $state('')
	const searched = $derived(asked.find !== '' || asked.from !== '' || asked.to !== '')
	const filled = $derived(Object.entries(asked).filter(([, value]) => value !== ''))
	const older = $derived(new URLSearchParams([...filled, ['before', String(page.next)]]).toString())

	async function check() {
		busy = true
		const answer = await ask('/logbook/check')
		busy = false
		if (!answer.ok) return void (wrong = answer.refusal.message)
		checked = answer.value
	}
</script>

<div class="page">
	<header>
		<h1>Logbook</h1>
		<p class="grow" role="status">
			{#if checked?.broken === null}
				<span class="stamp good">sealed</span>
				{countOf(checked.entries, 'entry', 'entries')}, each sealed to the one before it.
			{:else if checked}
				<span class="stamp bad">broken</span>
				Entry {checked.broken} does not fit its seal: it, or the one before it, was altered or taken out.
			{:else if page.head}
				<span class="quiet"
					>Entry {showFigure(page.head.seq)} is the last. Its seal:
					<span class="mono">{page.head.seal.slice(0, 16)}</span></span
				>
			{/if}
			{#if wrong}<span class="says-wrong">{wrong}</span>{/if}
		</p>
		<button class="btn" onclick={check} disabled={busy}>{busy ? 'Checking…' : 'Check the seals'}</button>
	</header>
	<p class="quiet">
		{whole ? 'Everything that anybody did.' : 'What you did, and what happened to tables that you keep.'}
		What a cell said stands in its row’s own history.
	</p>
	<form method="GET">
		<label class="words"
			>Words <input
				class="field"
				name="find"
				value={asked.find}
				placeholder="a name, a table, release, sign in"
			/></label
		>
		<LogDays {asked} />
		<button class="btn main">Find</button>
		{#if searched}<a class="btn" href="?">Show all</a>{/if}
	</form>
	<!-- Where it is wider than the window it is scrolled by keyboard too. -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="scroll" role="region" aria-label="Entries" tabindex="0">
		<table class="ruled">
			<thead
				><tr><th>When</th><th>Who</th><th>What</th><th>Where</th><th>About</th><th>Through</th><th>Seal</th></tr></thead
			>
			<tbody>
				{#each page.entries as entry (entry.seq)}
					<tr>
						<td class="when">{showMoment(entry.at)}</td>
						<td><strong>{entry.who}</strong></td>
						<td class:bad={BAD.has(entry.kind)}>{entry.kind}</td>
						<td>{entry.table}</td>
						<td>{entry.about}</td>
						<td class="quiet">{entry.through}</td>
						<td class="mono quiet">{entry.seal.slice(0, 10)}</td>
					</tr>
				{:else}
					<tr
						><td colspan="7"
							>{searched
								? 'Nothing was written down that fits. Try fewer words.'
								: 'Nothing has been written down yet.'}</td
						></tr
					>
				{/each}
			</tbody>
		</table>
	</div>
	{#if page.next !== null}<p><a class="btn" href="?{older}">Older entries</a></p>{/if}
</div>

<style>
	.page {
		padding: 1.1rem 1.5rem 2rem;
		display: grid;
		gap: 0.7rem;
		min-width: 0;
	}
	header,
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem 1rem;
	}
	.grow {
		flex: 1;
	}
	label {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		font-weight: 600;
	}
	label .field {
		font-weight: 400;
		width: auto;
	}
	.words .field {
		width: 18rem;
	}
	.scroll {
		overflow-x: auto;
	}
	.when {
		white-space: nowrap;
		font-variant-numeric: tabular-nums;
	}
	.bad {
		color: var(--oxide);
		font-weight: 700;
	}
</style>
