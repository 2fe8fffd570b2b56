<script lang="ts">
	/** The teams that one person is in. */
	import type { PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
	import type { PersonAction } from './do.ts'

	type Props = {
		person: ShownPerson
		sheet: PeopleSheet
		/** Does it, and says what came of it; whether it was done. */
		act: (asked: PersonAction, done?: string) => Promise<boolean>
	}

	let { person, sheet, act }: Props = $props()

	const joinable = $derived(sheet.teams.filter((team) => !person.teams.includes(team.id)))
</script>

<section aria-labelledby="teams">
	<h3 id="teams">Teams</h3>
	<ul>
		{#each sheet.teams.filter((team) => person.teams.includes(team.id)) as team (team.id)}
			<li>
				<strong>{team.name}</strong>
				{#if sheet.isSteward && !person.isMe}<button
						class="btn plain"
						aria-label="Take out of {team.name}"
						onclick={() => act({ kind: 'leave team', team: team.id })}>Take out</button
					>{/if}
			</li>
		{:else}
			<li class="quiet">In no team.</li>
		{/each}
	</ul>
	{#if sheet.isSteward && !person.isMe && joinable.length > 0}
		<label class="give">
			Put into
			<select
				class="field"
				value=""
				onchange={async (event) => {
					const team = Number(event.currentTarget.value)
					event.currentTarget.value = ''
					if (team > 0) await act({ kind: 'join team', team })
				}}
			>
				<option value="">a team</option>
				{#each joinable as team (team.id)}<option value={team.id}>{team.name}</option>{/each}
			</select>
		</label>
	{/if}
</section>
