<script lang="ts">
	/** Answers why somebody can, or cannot, see one row: line by line, with the values that decided. */
	import type { AccessReasons, PersonCount } from '$lib/core/requests/access.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { CellDraft } from '../cells/cell-draft.ts'
	import { optionsAt } from '../cells/options.ts'
	import ReferencePicker from '../cells/ReferencePicker.svelte'
	import { send } from '../send.ts'
	import WhyLines from './WhyLines.svelte'

	type Props = { table: BenchTable; people: readonly PersonCount[]; onpinned: () => void }

	let { table, people, onpinned }: Props = $props()

	let person = $state(0)
	let draft = $state.raw<CellDraft>({ text: '' })
	let found = $state.raw<AccessReasons | undefined>()
	let wrong = $state('')
	const unseen = $derived(found?.columns.filter((each) => !each.seen).map((each) => each.name) ?? [])

	async function look() {
		found = undefined
		wrong = ''
		if (person === 0 || draft.id === undefined) return
		const answer = await send('POST', '/bench/try', { kind: 'why', table: table.id, person, row: draft.id })
		if (answer.ok) found = answer.value
		else wrong = answer.refusal.message
	}

	/** What was found is kept, to be asked again with every change of who may see what. */
	async function pin() {
		if (!found || draft.id === undefined) return
		const example = { kind: 'pin', person, row: draft.id, sees: found.seesRow } as const
		const answer = await send('PATCH', `/bench/lines/${table.id}`, example)
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onpinned()
	}

	let column = $state('')
	const asked = $derived(found?.columns.find((each) => each.name === column))

	/** Why one column of the row is seen, or is not. */
	function whyColumn(
		reasons: AccessReasons,
		{ name, seen, by, without, needs }: AccessReasons['columns'][number]
	): string {
		const numbers = (lines: readonly number[]) => `line${lines.length > 1 ? 's' : ''} ${lines.join(' and ')}`
		if (!reasons.seesRow) return `The row itself is not seen, so ${name} is not either.`
		if (seen && by.length > 0) return `By ${numbers(by)}.`
		if (seen) return reasons.besides.map((each) => `${reasons.name} ${BESIDES[each]}.`).join(' ')
		if (needs.length > 0)
			return `It is worked out from ${needs.join(' and ')}, which ${reasons.name} does not see here.`
		return `The row is seen by ${numbers(without)}, which ${without.length > 1 ? 'leave' : 'leaves'} ${name} out.`
	}

	const BESIDES = {
		keeper: 'keeps this table, and so sees all of it',
		asked: 'was asked to decide on this row, and sees what was shown with it',
		suspended: 'is suspended, and so sees nothing'
	}
</script>

<section aria-labelledby="why">
	<h2 id="why">Why can, or cannot, somebody see a row, or a column of it?</h2>
	<div class="ask">
		<label
			>Person
			<select class="field" bind:value={person} onchange={look}>
				<option value={0}></option>
				{#each people as each (each.person)}<option value={each.person}>{each.name}</option>{/each}
			</select></label
		>
		<label for="why-row">Row</label>
		<div class="pick">
			<ReferencePicker
				id="why-row"
				table={table.id}
				{draft}
				invalid={false}
				options={optionsAt('')}
				onchange={(next) => {
					draft = next
					void look()
				}}
			/>
		</div>
	</div>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	{#if found}
		<p role="status">
			<span class="stamp {found.seesRow ? 'good' : 'bad'}">{found.seesRow ? 'sees it' : 'does not see it'}</span>
			<strong>{found.name}</strong>
			{#each found.besides as besides (besides)}{BESIDES[besides]}.{/each}
			{#if found.seesRow}{unseen.length === 0 ? 'Every column of it.' : `All but ${unseen.join(', ')}.`}{/if}
			<button class="btn" onclick={pin}>Keep as an example: {found.seesRow ? 'must see it' : 'must not see it'}</button>
		</p>
		<p class="column" role="status">
			<label
				>Column
				<select class="field" bind:value={column}>
					<option value="">choose one to ask about it</option>
					{#each found.columns as each (each.name)}<option>{each.name}</option>{/each}
				</select></label
			>
			{#if asked}
				<span class="stamp {asked.seen ? 'good' : 'bad'}">{asked.seen ? 'seen' : 'not seen'}</span>
				{whyColumn(found, asked)}
			{/if}
		</p>
		<WhyLines lines={found.lines} />
	{/if}
</section>

<style>
	section {
		padding: 1rem 1.3rem 2rem;
		display: grid;
		gap: 0.7rem;
		border-top: 1px solid var(--zinc-3);
	}
	.ask {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem;
	}
	label {
		font-weight: 600;
	}
	label .field {
		display: inline-block;
		width: auto;
		min-width: 12rem;
		margin-left: 0.4rem;
	}
	.pick {
		width: 16rem;
	}
</style>
