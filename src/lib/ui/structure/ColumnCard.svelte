<script lang="ts">
	/** A column's card: what it is, what it reads and who reads it, its rules, and what it could be instead. */
	import { untrack } from 'svelte'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import FormulaEditor from '../formula/FormulaEditor.svelte'
	import ColumnRemoval from './ColumnRemoval.svelte'
	import ColumnRules from './ColumnRules.svelte'
	import ColumnType from './ColumnType.svelte'
	import { changeStructure, type ColumnStep } from './structure.ts'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		column: ShownColumn
		onclose: () => void
		/** The structure has changed: `version` is the workspace's that it changed with. */
		onmade: (version: number) => void
	}

	let { table, tables, column, onclose, onmade }: Props = $props()

	let formula = $state(untrack(() => column.formula ?? ''))
	let wrong = $state('')

	/** Types of column in which addresses of pictures come. */
	const ADDRESSED = new Set(['text', 'long text', 'web address', 'code'])

	const computed = $derived(column.type === 'computed')

	async function step(asked: ColumnStep) {
		const answer = await changeStructure({ ...asked, table: table.id, column: column.id })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		onmade(answer.value.version)
	}
</script>

<header>
	<h2>{column.name}</h2>
	<span class="mono quiet"
		>{column.condition ? 'named condition' : column.type}{column.unit ? `, ${column.unit}` : ''}</span
	>
	<button class="btn plain" onclick={onclose} aria-label="Close the card">Close</button>
</header>
{#if column.about}<p>{column.about}</p>{/if}
{#if column.choices}<p>{column.choices.join(' · ')}</p>{/if}
{#if !table.owned}
	<p class="quiet">This table is kept by somebody else, so its columns are not yours to change.</p>
{:else}
	{#if computed}
		<FormulaEditor
			value={column.formula ?? ''}
			table={table.id}
			condition={column.condition ?? false}
			me={true}
			onchange={(text) => (formula = text)}
		/>
		<p>
			<button class="btn main" onclick={() => step({ kind: 'formula', formula })} disabled={formula === column.formula}
				>Keep the formula</button
			>
		</p>
	{/if}
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<details name="column card" open={!computed}>
		<summary>Name and rules</summary>
		<ColumnRules {table} {column} onkeep={(words) => step({ kind: 'change column', words })} />
		{#if table.label !== column.id && column.type !== 'reference' && !computed}
			<p><button class="btn" onclick={() => step({ kind: 'label' })}>Know rows by it</button></p>
		{/if}
	</details>
	{#if ADDRESSED.has(column.type)}
		<p>
			<a class="btn" data-sveltekit-reload href="tables/pictures?table={table.id}&column={column.id}"
				>Try it as addresses of pictures</a
			>
		</p>
	{/if}
	{#if !computed && column.type !== 'reference'}
		<details name="column card">
			<summary>Another type</summary>
			<ColumnType {table} {tables} {column} onstep={step} />
		</details>
	{/if}
	<details name="column card">
		<summary>What uses it</summary>
		<ColumnRemoval {table} {column} onremove={() => step({ kind: 'remove' })} />
	</details>
{/if}

<style>
	header {
		display: flex;
		align-items: baseline;
		gap: 0.7rem;
		margin-bottom: 0.5rem;
	}
	header .btn {
		margin-left: auto;
	}
	p {
		margin: 0.5rem 0;
	}
	details {
		border-top: 1px solid var(--zinc-2);
		padding: 0.5rem 0;
	}
	summary {
		cursor: pointer;
		font: 650 0.92rem var(--head);
	}
</style>
