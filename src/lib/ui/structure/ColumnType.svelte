<script lang="ts">
	/** Gives a column another type, or makes it a reference, after showing what becomes of its values. */
	import { TYPED_TYPES } from '$lib/core/model/table.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { ConversionPreview, MatchPreview } from '$lib/core/requests/structure.ts'
	import { changeStructure, type ColumnStep } from './structure.ts'
	import { showFigure } from '../count.ts'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		column: ShownColumn
		onstep: (step: ColumnStep) => void
	}

	let { table, tables, column, onstep }: Props = $props()

	const id = $props.id()
	/** A type's name, or the number of the table that it would point to. */
	let wanted = $state('')
	let conversion = $state.raw<ConversionPreview | undefined>()
	let match = $state.raw<MatchPreview | undefined>()
	let fixes = $state<Record<string, string>>({})
	let wrong = $state('')

	const type = $derived(TYPED_TYPES.find((each) => each === wanted))
	const of = $derived({ table: table.id, column: column.id })
	const others = $derived(
		['text', 'code', 'choice', 'email'].includes(column.type) ? tables.filter((each) => each.id !== table.id) : []
	)
	const count = (rows: number) => `${showFigure(rows)} ${rows === 1 ? 'row' : 'rows'}`

	async function look() {
		conversion = undefined
		match = undefined
		wrong = ''
		if (wanted === '') return
		const to = Number(wanted)
		if (to > 0) {
			const answer = await changeStructure({ kind: 'match', ...of, to })
			if (answer.ok) match = answer.value.made
			else wrong = answer.refusal.message
			return
		}
		if (!type) return
		const answer = await changeStructure({ kind: 'would convert', ...of, type })
		if (answer.ok) conversion = answer.value.made
		else wrong = answer.refusal.message
	}

	function refer() {
		const list = Object.entries(fixes).filter(([, meant]) => meant.trim() !== '')
		onstep({ kind: 'reference', to: Number(wanted), fixes: list })
	}
</script>

<label for="{id}-type">Make it</label>
<select id="{id}-type" class="field" bind:value={wanted} onchange={look}>
	<option value=""></option>
	{#each TYPED_TYPES.filter((type) => type !== column.type) as type (type)}<option>{type}</option>{/each}
	{#each others as each (each.id)}<option value={String(each.id)}>a reference to {each.name}</option>{/each}
</select>
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
{#if conversion}
	<p>
		{count(conversion.read)} can be read so{conversion.blank > 0
			? `, ${count(conversion.blank)} ${conversion.blank === 1 ? 'is' : 'are'} blank`
			: ''}{conversion.unread.length > 0 ? '; these cannot, and would be left blank:' : '. Nothing is lost.'}
	</p>
	<ul>
		{#each conversion.unread as value (value.text)}
			<li><strong>{value.text}</strong> <span class="quiet">in {count(value.rows)}</span></li>
		{/each}
	</ul>
	<p>
		<button class="btn main" onclick={() => type && onstep({ kind: 'convert', type })}>Make it {wanted}</button>
	</p>
	<p class="quiet">The values as they are now are kept; Ctrl Z brings them back.</p>
{/if}
{#if match}
	<p>
		{count(match.matched)} find theirs{match.blank > 0
			? `, ${count(match.blank)} ${match.blank === 1 ? 'is' : 'are'} blank`
			: ''}{match.unmatched.length > 0 ? '; these find none and would be left blank:' : '. Nothing is lost.'}
	</p>
	{#each match.unmatched as value (value.text)}
		<label class="fix">
			<span><strong>{value.text}</strong> <span class="quiet">in {count(value.rows)}</span></span>
			<input
				class="field"
				placeholder="means…"
				oninput={(event) => (fixes = { ...fixes, [value.text]: event.currentTarget.value })}
			/>
		</label>
	{/each}
	{#if match.knownBy}<p>Rows are known by this column now. They will be known by {match.knownBy}.</p>{/if}
	<p><button class="btn main" onclick={refer}>Make it a reference</button></p>
{/if}

<style>
	label {
		display: block;
		font-weight: 600;
		margin: 0.4rem 0 0.2rem;
	}
	p,
	ul {
		margin: 0.5rem 0;
	}
	ul {
		padding-left: 1.1rem;
		max-height: 9rem;
		overflow: auto;
	}
	.fix {
		display: grid;
		grid-template-columns: 1fr 11rem;
		align-items: center;
		gap: 0.5rem;
		font-weight: 400;
	}
</style>
