<script lang="ts">
	/** The teams: who is in each, and the roles that come with it. */
	import type { PeopleSheet } from '$lib/core/requests/people.ts'
	import { personName } from './known-by.ts'
	import { PeopleActions } from './people-actions.svelte.ts'

	type Props = { sheet: PeopleSheet }

	let { sheet }: Props = $props()

	let name = $state('')
	const actions = new PeopleActions()

	function nameOf(row: string): string {
		const person = sheet.people.find((each) => each.row.id === row)
		return (person && personName(sheet, person)) || 'somebody further down'
	}

	async function add(event: SubmitEvent) {
		event.preventDefault()
		if (await actions.act({ kind: 'add team', name })) name = ''
	}
</script>

<div class="teams">
	<header>
		<h2>Teams</h2>
		<p class="quiet">A team holds roles together: whoever is put into it has them, whoever leaves it has not.</p>
	</header>
	{#if actions.wrong}<p class="says-wrong" role="alert">{actions.wrong}</p>{/if}
	{#each sheet.teams as team (team.id)}
		{@const held = sheet.roles.filter((role) => team.roles.includes(role.id))}
		<article>
			<h3>{team.name}</h3>
			<p>
				{#each team.members as row (row)}<a href="/people?person={row}">{nameOf(row)}</a>{:else}<span class="quiet"
						>Nobody is in it yet. Open a person to put them in.</span
					>{/each}
			</p>
			<ul>
				{#each held as role (role.id)}
					<li>
						{role.name}
						{#if sheet.isSteward}<button
								class="btn plain"
								aria-label="Take {role.name} from {team.name}"
								onclick={() => actions.act({ kind: 'take team role', team: team.id, role: role.id })}>Take away</button
							>{/if}
					</li>
				{:else}<li class="quiet">Holds no role yet.</li>{/each}
			</ul>
			{#if sheet.isSteward}
				<p class="row">
					<select
						class="field"
						aria-label="Give {team.name} a role"
						value=""
						onchange={async (event) => {
							const role = Number(event.currentTarget.value)
							event.currentTarget.value = ''
							if (role > 0) await actions.act({ kind: 'give team role', team: team.id, role })
						}}
					>
						<option value="">Give it a role</option>
						{#each sheet.roles.filter((role) => !team.roles.includes(role.id)) as role (role.id)}<option value={role.id}
								>{role.name}</option
							>{/each}
					</select>
					<button class="btn danger" onclick={() => actions.act({ kind: 'remove team', team: team.id })}
						>Remove the team</button
					>
				</p>
			{/if}
		</article>
	{:else}
		<p>There is no team yet.</p>
	{/each}
	{#if sheet.isSteward}
		<form onsubmit={add}>
			<label for="team-name">A new team</label>
			<p class="row">
				<input id="team-name" class="field" required maxlength="80" bind:value={name} placeholder="Boat crew" />
				<button class="btn main">Add it</button>
			</p>
		</form>
	{/if}
</div>

<style>
	.teams {
		display: grid;
		gap: 1.2rem;
		padding: 1.2rem 1.6rem 2rem;
		max-width: 60rem;
		align-content: start;
	}
	header {
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.6rem;
	}
	article {
		display: grid;
		gap: 0.4rem;
		border-bottom: 1px solid var(--zinc-3);
		padding-bottom: 1rem;
	}
	article a {
		margin-right: 0.8rem;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		align-items: center;
		gap: 1rem;
		min-height: 36px;
	}
	label {
		font-weight: 600;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.row .field {
		width: auto;
		min-width: 14rem;
	}
</style>
