<script lang="ts">
	/** One person: what is known of them, the roles and teams they have, and whether they can come in. */
	import type { PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
	import { personName } from './known-by.ts'
	import { showMoment } from '../dates.ts'
	import { doWithPeople, type PersonAction } from './do.ts'
	import PersonEntry from './PersonEntry.svelte'
	import PersonFacts from './PersonFacts.svelte'
	import PersonRoles from './PersonRoles.svelte'
	import PersonTeams from './PersonTeams.svelte'
	import { STATE_TONES } from './states.ts'

	type Props = { person: ShownPerson; sheet: PeopleSheet }

	let { person, sheet }: Props = $props()

	let said = $state('')
	let wrong = $state('')

	const name = $derived(personName(sheet, person))

	async function act(asked: PersonAction, done = '') {
		const answer = await doWithPeople({ person: person.row.id, ...asked })
		wrong = answer.ok ? '' : answer.refusal.message
		said = answer.ok ? done : ''
		return answer.ok
	}
</script>

<article>
	<header>
		<h2>{name}</h2>
		<span class="stamp {STATE_TONES[person.state]}">{person.state}</span>
		{#if person.isMe}<span class="quiet">this is you</span>{/if}
		<span class="quiet last">{person.lastIn === null ? 'never signed in' : `last in ${showMoment(person.lastIn)}`}</span
		>
	</header>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	{#if said}<p class="done" role="status">{said}</p>{/if}

	<PersonFacts {person} {sheet} onwrong={(message) => (wrong = message)} />
	<PersonRoles {person} {sheet} {act} />
	<PersonTeams {person} {sheet} {act} />
	{#if sheet.isSteward}<PersonEntry {person} {act} />{/if}
</article>

<style>
	article {
		display: grid;
		gap: 1rem;
		padding: 1.2rem 1.6rem 2rem;
		align-content: start;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.5rem 0.9rem;
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.6rem;
	}
	h2 {
		font-size: 1.3rem;
	}
	.last {
		margin-left: auto;
	}
	article > :global(section) {
		display: grid;
		gap: 0.5rem;
		max-width: 44rem;
	}
	article :global(ul) {
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
	}
	article :global(li) {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.3rem 1rem;
		min-height: 40px;
		border-bottom: 1px solid var(--zinc-2);
	}
	article :global(li .btn) {
		margin-left: auto;
	}
	article :global(.give) {
		display: flex;
		align-items: center;
		gap: 0.6rem;
	}
	article :global(.give .field) {
		width: auto;
		min-width: 12rem;
	}
	article :global(.row) {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.done {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
	}
</style>
