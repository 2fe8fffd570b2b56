<script lang="ts">
	/** A table's card: its name and meaning, what must hold of every row, and columns that were taken out. */
	import { untrack } from 'svelte'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import RelationOffers from './RelationOffers.svelte'
	import { showDay } from '../dates.ts'
	import TableRemoval from './TableRemoval.svelte'
	import Keepers from './Keepers.svelte'
	import NamedConditions from './NamedConditions.svelte'
	import { changeStructure, type TableStep } from './structure.ts'

	type Props = {
		table: BenchTable
		onclose: () => void
		onopen: (column: number) => void
		onmade: (version: number) => void
		onremoved: () => void
	}

	let { table, onclose, onopen, onmade, onremoved }: Props = $props()

	const id = $props.id()
	let name = $state(untrack(() => table.name))
	let about = $state(untrack(() => table.about))
	let checks = $state(untrack(() => table.checks.map((check) => ({ ...check }))))
	let wrong = $state('')

	async function step(asked: TableStep) {
		const answer = await changeStructure({ table: table.id, ...asked })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		onmade(answer.value.version)
	}

	function keep(event: SubmitEvent) {
		event.preventDefault()
		const filled = checks.filter((check) => check.formula.trim() !== '')
		void step({ kind: 'change table', words: { name, about, checks: filled } })
	}
</script>

<form onsubmit={keep}>
	<header>
		<h2>{table.name}</h2>
		<button type="button" class="btn plain" onclick={onclose} aria-label="Close the card">Close</button>
	</header>
	<label for="{id}-name">Name</label>
	<input id="{id}-name" class="field" required maxlength="80" bind:value={name} />
	<label for="{id}-about">What its rows are, in a sentence</label>
	<input id="{id}-about" class="field" maxlength="500" bind:value={about} />
	<h3>What must hold of every row</h3>
	{#each checks as check, i (i)}
		<div class="check">
			<input
				class="field formula"
				aria-label="Check {i + 1}"
				bind:value={check.formula}
				placeholder="Depth > 0 and Depth < 40"
			/>
			<input
				class="field"
				required
				aria-label="What is said where check {i + 1} does not hold"
				bind:value={check.message}
				placeholder="Said where it does not hold"
			/>
		</div>
	{/each}
	<p>
		<button type="button" class="btn" onclick={() => checks.push({ formula: '', message: '' })}>Add a check</button>
	</p>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<p><button class="btn main">Keep</button></p>
</form>
<NamedConditions {table} {onopen} {onmade} />
{#if table.owned}<Keepers {table} />{/if}
{#if table.owned}<RelationOffers tables={[table.id]} {onmade} />{/if}
{#if table.owned}
	<details>
		<summary>Take the table out</summary>
		<TableRemoval {table} {onremoved} />
	</details>
{/if}
{#if table.removed.length > 0}
	<h3>Taken out</h3>
	<ul>
		{#each table.removed as column (column.id)}
			<li>
				<span>{column.name} <span class="quiet">on {showDay(column.at)}</span></span>
				<button class="btn" onclick={() => step({ kind: 'return', column: column.id })}>Put back</button>
			</li>
		{/each}
	</ul>
{/if}

<style>
	form {
		display: grid;
		gap: 0.25rem;
	}
	header {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
	}
	label {
		font-weight: 600;
		margin-top: 0.3rem;
	}
	h3 {
		margin: 0.7rem 0 0.2rem;
		font-size: 0.95rem;
	}
	p {
		margin: 0.4rem 0;
	}
	.check {
		display: grid;
		gap: 0.2rem;
		border-left: 3px solid var(--zinc-3);
		padding-left: 0.6rem;
		margin-bottom: 0.4rem;
	}
	details {
		margin: 0.7rem 0;
	}
	summary {
		cursor: pointer;
		font: 650 0.92rem var(--head);
	}
	ul {
		list-style: none;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		padding: 0.2rem 0;
	}
</style>
