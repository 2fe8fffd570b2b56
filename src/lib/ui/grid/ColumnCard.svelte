<script lang="ts">
	/** A column's card: its formula with what it gives, or turning it into a reference, or making rows known by it. */
	import { untrack } from 'svelte'
	import type { ShownColumn } from '$lib/server/rows/describe-columns.ts'
	import type { BenchTable } from '$lib/server/workspace/bench.ts'
	import type { MatchPreview } from '$lib/server/workspace/tables.ts'
	import FormulaEditor from '../bench/FormulaEditor.svelte'
	import { send } from '../send.ts'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		column: ShownColumn
		row: string | undefined
		onclose: () => void
		onmade: () => void
	}

	let { table, tables, column, onclose, onmade }: Props = $props()

	let formula = $state(untrack(() => column.formula ?? ''))
	let to = $state(0)
	let preview = $state.raw<MatchPreview | undefined>()
	let fixes = $state<Record<string, string>>({})
	let wrong = $state('')

	const others = $derived(tables.filter((each) => each.id !== table.id))
	const canRefer = $derived(['text', 'code', 'choice', 'email'].includes(column.type) && table.kept)

	async function keepFormula() {
		const answer = await send('/bench/structure', { kind: 'formula', table: table.id, column: column.id, formula })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onmade()
	}

	async function look() {
		preview = undefined
		if (to === 0) return
		const answer = await send<MatchPreview>('/bench/structure', {
			kind: 'match',
			table: table.id,
			column: column.id,
			to
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		preview = answer.value
	}

	async function makeReference() {
		const list = Object.entries(fixes).filter(([, meant]) => meant.trim() !== '')
		const answer = await send('/bench/structure', {
			kind: 'reference',
			table: table.id,
			column: column.id,
			to,
			fixes: list
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onmade()
	}

	async function makeLabel() {
		const answer = await send('/bench/structure', { kind: 'label', table: table.id, column: column.id })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onmade()
	}
</script>

<header>
	<h2>{column.name}</h2>
	<span class="mono quiet">{column.type}{column.unit ? `, ${column.unit}` : ''}</span>
</header>
{#if column.type === 'computed'}
	{#if table.kept}
		<FormulaEditor
			value={column.formula ?? ''}
			table={table.id}
			condition={false}
			me={true}
			onchange={(text) => (formula = text)}
		/>
		<p class="end">
			<button class="btn main" onclick={keepFormula} disabled={formula === column.formula}>Keep</button><button
				class="btn"
				onclick={onclose}>Close</button
			>
		</p>
	{/if}
{:else}
	{#if column.choices}<p>{column.choices.join(' · ')}</p>{/if}
	{#if canRefer}
		<label for="refer">Make it a reference to</label>
		<select id="refer" class="field" bind:value={to} onchange={look}>
			<option value={0}></option>
			{#each others as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
		</select>
		{#if preview}
			<p>
				{preview.matched.toLocaleString('en-GB')} rows find theirs{preview.blank > 0
					? `, ${preview.blank} are blank`
					: ''}{preview.unmatched.length > 0 ? '; these find none and would be left blank:' : '. Nothing is lost.'}
			</p>
			{#each preview.unmatched as value (value.text)}
				<label class="fix">
					<span
						><strong>{value.text}</strong>
						<span class="quiet">in {value.rows} {value.rows === 1 ? 'row' : 'rows'}</span></span
					>
					<input
						class="field"
						placeholder="means…"
						oninput={(event) => (fixes = { ...fixes, [value.text]: event.currentTarget.value })}
					/>
				</label>
			{/each}
			<button class="btn main" onclick={makeReference}>Make it a reference</button>
		{/if}
	{/if}
	<p class="end">
		{#if table.kept && table.label !== column.id && column.type !== 'reference'}<button class="btn" onclick={makeLabel}
				>Know rows by it</button
			>{/if}
		<button class="btn" onclick={onclose}>Close</button>
	</p>
{/if}
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}

<style>
	header {
		display: flex;
		align-items: baseline;
		gap: 0.7rem;
		margin-bottom: 0.5rem;
	}
	label {
		display: block;
		font-weight: 600;
		margin: 0.4rem 0 0.2rem;
	}
	p {
		margin: 0.5rem 0;
	}
	.fix {
		display: grid;
		grid-template-columns: 1fr 11rem;
		align-items: center;
		gap: 0.5rem;
		font-weight: 400;
	}
	.end {
		display: flex;
		gap: 0.5rem;
		margin-top: 0.8rem;
	}
</style>
