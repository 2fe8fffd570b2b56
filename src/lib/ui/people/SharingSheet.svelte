<script lang="ts">
	/** Who has which app, and as what; and giving one to somebody in one press. */
	import { untrack } from 'svelte'
	import type { PeopleSheet, SharedApp } from '$lib/core/requests/people.ts'
	import { doWithPeople } from './do.ts'
	import HoldersOfApp from './HoldersOfApp.svelte'
	import { personAddress, personName } from './known-by.ts'

	type Props = { sheet: PeopleSheet; apps: readonly SharedApp[]; builders: number }

	let { sheet, apps, builders }: Props = $props()

	let app = $state(untrack(() => apps[0]?.id ?? 0))
	let row = $state('')
	let role = $state(0)
	let team = $state(0)
	let tells = $state(true)
	let words = $state('')
	let wrong = $state('')
	let said = $state('')

	const chosen = $derived(apps.find((each) => each.id === app))
	const person = $derived(sheet.people.find((each) => each.row.id === row))
	const offered = $derived(
		sheet.roles.filter((each) => each.mayGrant && (chosen?.roles.includes(each.id) || each.id === builders))
	)

	/** What somebody has already, before they get more. */
	const has = $derived({
		apps: apps.filter((each) => each.people.some((one) => one.row === row)).map((each) => each.name),
		teams: sheet.teams.filter((each) => person?.teams.includes(each.id)).map((each) => each.name)
	})

	async function share(event: SubmitEvent) {
		event.preventDefault()
		const asked = {
			kind: 'share app' as const,
			app,
			person: row,
			role: role === 0 ? null : role,
			team: team === 0 ? null : team,
			tells,
			words
		}
		const answer = await doWithPeople(asked)
		wrong = answer.ok ? '' : answer.refusal.message
		said = answer.ok && person ? `${personName(sheet, person)} has ${chosen?.name}${tells ? ', and is told' : ''}.` : ''
		if (answer.ok) words = ''
	}
</script>

<div class="sharing">
	<form onsubmit={share}>
		<h2>Share an app</h2>
		<label for="share-app">App</label>
		<select id="share-app" class="field" bind:value={app}>
			{#each apps as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
		</select>
		<label for="share-person">With</label>
		<select id="share-person" class="field" required bind:value={row}>
			<option value=""></option>
			{#each sheet.people as each (each.row.id)}
				{@const address = personAddress(sheet, each)}
				<option value={each.row.id}>{personName(sheet, each)}{address ? ` · ${address}` : ''}</option>
			{/each}
		</select>
		{#if person}
			<p class="quiet note">
				{has.apps.length > 0 ? `Has ${has.apps.join(', ')}.` : 'Has no app yet.'}
				{has.teams.length > 0 ? `Is in ${has.teams.join(', ')}.` : 'Is in no team.'}
			</p>
		{/if}
		<label for="share-role">As</label>
		<select id="share-role" class="field" bind:value={role}>
			<option value={0}>{team === 0 ? '' : 'what the team holds'}</option>
			{#each offered as each (each.id)}
				<option value={each.id}>{each.id === builders ? 'co-builder' : each.name}</option>
			{/each}
		</select>
		{#if sheet.isSteward && sheet.teams.length > 0}
			<label for="share-team">Into the team</label>
			<select id="share-team" class="field" bind:value={team}>
				<option value={0}>none</option>
				{#each sheet.teams as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
			</select>
		{/if}
		<label class="tick note"><input type="checkbox" bind:checked={tells} /> Send a message with the link</label>
		{#if tells}
			<label for="share-words">In your words</label>
			<textarea id="share-words" class="field" rows="2" maxlength="2000" bind:value={words}></textarea>
		{/if}
		{#if wrong}<p class="says-wrong note" role="alert">{wrong}</p>{/if}
		{#if said}<p class="note" role="status"><span class="stamp good">shared</span> {said}</p>{/if}
		<p class="note"><button class="btn main">Share {chosen?.name ?? ''}</button></p>
	</form>
	{#if chosen}<HoldersOfApp {sheet} app={chosen} />{/if}
</div>

<style>
	.sharing {
		display: grid;
		grid-template-columns: minmax(20rem, 34rem) minmax(18rem, 1fr);
		gap: 2rem;
		padding: 1.2rem 1.6rem 2rem;
		align-items: start;
	}
	form {
		display: grid;
		grid-template-columns: 8rem minmax(0, 1fr);
		gap: 0.55rem 0.8rem;
		align-items: center;
	}
	h2 {
		grid-column: 1 / -1;
	}
	.note {
		grid-column: 2;
	}
	label {
		font-weight: 600;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		font-weight: 400;
	}
	@media (max-width: 1000px) {
		.sharing,
		form {
			grid-template-columns: minmax(0, 1fr);
		}
		.note {
			grid-column: 1;
		}
	}
</style>
