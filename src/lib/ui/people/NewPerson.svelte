<script lang="ts">
	/** Adds somebody with roles and teams, and invites them. */
	import type { PeopleSheet } from '$lib/core/requests/people.ts'
	import CellField from '../cells/CellField.svelte'
	import { BLANK_DRAFT, readDraft, type CellDraft } from '../cells/cell-draft.ts'
	import { optionsAt } from '../cells/options.ts'
	import { doWithPeople } from './do.ts'

	type Props = { sheet: PeopleSheet; onadded: (row: string) => void; onclose: () => void }

	let { sheet, onadded, onclose }: Props = $props()

	let drafts = $state.raw<Record<number, CellDraft>>({})
	let roles = $state<number[]>([])
	let teams = $state<number[]>([])
	let invited = $state(true)
	let words = $state('')
	let wrong = $state('')
	let marked = $state.raw<Record<number, string>>({})

	const columns = $derived(sheet.columns.filter((column) => column.type !== 'computed'))

	async function add(event: SubmitEvent) {
		event.preventDefault()
		const readings = columns.map((column) => ({ column, reading: readDraft(column, drafts[column.id] ?? BLANK_DRAFT) }))
		marked = Object.fromEntries(
			readings.flatMap(({ column, reading }) => (reading.ok ? [] : [[column.id, reading.message]]))
		)
		if (Object.keys(marked).length > 0) return
		const cells = readings.flatMap(({ column, reading }) =>
			reading.ok && reading.value !== null ? [{ column: column.id, value: reading.value }] : []
		)
		const answer = await doWithPeople({ kind: 'add person', cells, roles, teams, invited, words })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onadded(answer.value)
	}
</script>

<form onsubmit={add} novalidate>
	<h2>Somebody new</h2>
	{#each columns as column (column.id)}
		<CellField
			{column}
			draft={drafts[column.id] ?? BLANK_DRAFT}
			message={marked[column.id]}
			options={optionsAt('')}
			onchange={(draft) => (drafts = { ...drafts, [column.id]: draft })}
		/>
	{/each}
	<fieldset>
		<legend>Roles</legend>
		{#each sheet.roles.filter((role) => role.mayGrant) as role (role.id)}
			<label><input type="checkbox" value={role.id} bind:group={roles} /> {role.name}</label>
		{/each}
	</fieldset>
	{#if sheet.teams.length > 0}
		<fieldset>
			<legend>Teams</legend>
			{#each sheet.teams as team (team.id)}
				<label><input type="checkbox" value={team.id} bind:group={teams} /> {team.name}</label>
			{/each}
		</fieldset>
	{/if}
	<label class="tick"><input type="checkbox" bind:checked={invited} /> Send an invitation at once</label>
	{#if invited}
		<label for="new-words">What you want to add to it (may stay empty)</label>
		<textarea id="new-words" class="field" rows="3" bind:value={words}></textarea>
	{/if}
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<p class="row">
		<button class="btn main">{invited ? 'Add and invite' : 'Add'}</button>
		<button type="button" class="btn" onclick={onclose}>Close</button>
	</p>
</form>

<style>
	form {
		display: grid;
		gap: 0.9rem;
		max-width: 34rem;
		padding: 1.2rem 1.6rem 2rem;
		align-content: start;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.2rem;
		border: 0;
		margin: 0;
		padding: 0;
	}
	legend {
		font-weight: 600;
		padding: 0 0 0.2rem;
	}
	fieldset label,
	.tick {
		display: inline-flex;
		align-items: center;
		gap: 0.4rem;
		min-height: 32px;
	}
	.row {
		display: flex;
		gap: 0.6rem;
	}
</style>
