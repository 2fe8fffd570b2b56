<script lang="ts">
	/** Opens another way into an app: for whom, within which limits, and what it gives. */
	import DateField from '../cells/DateField.svelte'
	import { untrack } from 'svelte'
	import type { AppSummary } from '$lib/core/requests/bench.ts'
	import type { WayKind } from '$lib/core/requests/joining.ts'
	import type { PeopleSheet } from '$lib/core/requests/people.ts'
	import type { PeopleActions } from './people-actions.svelte.ts'

	type Props = {
		sheet: PeopleSheet
		apps: readonly AppSummary[]
		actions: PeopleActions
	}

	let { sheet, apps, actions }: Props = $props()

	const KINDS: readonly { kind: WayKind; name: string; about: string }[] = [
		{
			kind: 'domain',
			name: 'Addresses at a domain',
			about: 'Whoever reads mail at it comes in by a link that is sent there.'
		},
		{ kind: 'code', name: 'An invitation code', about: 'Whoever has it comes in, as often and as long as you say.' },
		{ kind: 'phrase', name: 'A pass phrase', about: 'Whoever knows it comes in. Only its hash is kept: note it down.' },
		{ kind: 'doorstep', name: 'The doorstep', about: 'People ask, and wait until somebody lets them in.' },
		{ kind: 'visitors', name: 'Visitors', about: 'Anybody may look, without signing in, as the role that you choose.' }
	]

	const live = $derived(apps.filter((app) => app.live !== null))
	let app = $state(untrack(() => apps.find((each) => each.live !== null)?.id ?? 0))
	let kind = $state<WayKind>('code')
	let word = $state('')
	let into = $state('')
	let uses = $state<number | null>(null)
	let lastDay = $state('')
	let asks = $state('')
	let words = $state('')
	const about = $derived(KINDS.find((each) => each.kind === kind)?.about)

	async function open(event: SubmitEvent) {
		event.preventDefault()
		const [what, id] = into.split(' ')
		const asked = {
			kind: 'open way' as const,
			app,
			way: kind,
			word,
			role: what === 'role' ? Number(id) : null,
			team: what === 'team' ? Number(id) : null,
			uses: kind === 'code' ? uses : null,
			lastDay: kind === 'code' && lastDay !== '' ? lastDay : null,
			asks: kind === 'doorstep' ? asks : '',
			words: kind === 'doorstep' ? words : ''
		}
		if (await actions.act(asked)) word = ''
	}
</script>

<form onsubmit={open}>
	<h3>Open a way</h3>
	<label for="way-app">Into</label>
	<select id="way-app" class="field" required bind:value={app}>
		{#each live as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
	</select>
	<label for="way-kind">For</label>
	<select id="way-kind" class="field" bind:value={kind}>
		{#each KINDS as each (each.kind)}<option value={each.kind}>{each.name}</option>{/each}
	</select>
	<p class="quiet note">{about}</p>
	{#if kind === 'domain'}
		<label for="way-word">Domain</label>
		<input id="way-word" class="field" required bind:value={word} placeholder="varrow.example" />
	{:else if kind === 'code'}
		<label for="way-word">Code</label>
		<input id="way-word" class="field" required bind:value={word} placeholder="QUAY-2027" autocomplete="off" />
		<label for="way-uses">How often</label>
		<input id="way-uses" class="field" type="number" min="1" max="100000" bind:value={uses} placeholder="no limit" />
		<label for="way-end" id="way-end-label">Last day</label>
		<DateField
			id="way-end"
			labelledby="way-end-label"
			text={lastDay}
			invalid={false}
			hasSteps={false}
			onchange={(text) => (lastDay = text)}
		/>
	{:else if kind === 'phrase'}
		<label for="way-word">Pass phrase</label>
		<input id="way-word" class="field" required bind:value={word} autocomplete="off" />
	{:else if kind === 'doorstep'}
		<label for="way-asks">What is asked</label>
		<input id="way-asks" class="field" bind:value={asks} placeholder="Which boat do you come with?" />
		<label for="way-words">Said while they wait</label>
		<textarea id="way-words" class="field" rows="2" bind:value={words}></textarea>
	{/if}
	<label for="way-into">Gives</label>
	<select id="way-into" class="field" required bind:value={into}>
		<option value=""></option>
		{#each sheet.roles.filter((role) => !role.fixed) as role (role.id)}
			<option value="role {role.id}">the role {role.name}</option>
		{/each}
		{#if kind !== 'visitors'}
			{#each sheet.teams as team (team.id)}<option value="team {team.id}">the team {team.name}</option>{/each}
		{/if}
	</select>
	<p class="end"><button class="btn main">Open it</button></p>
</form>

<style>
	form {
		display: grid;
		grid-template-columns: 9rem minmax(0, 24rem);
		gap: 0.5rem 0.8rem;
		align-items: center;
		border-top: 1px solid var(--zinc-3);
		padding-top: 1rem;
	}
	h3,
	.note,
	.end {
		grid-column: 1 / -1;
	}
	.note {
		padding-left: 9.8rem;
	}
	label {
		font-weight: 600;
	}
	@media (max-width: 700px) {
		form {
			grid-template-columns: minmax(0, 1fr);
		}
		.note {
			padding-left: 0;
		}
	}
</style>
