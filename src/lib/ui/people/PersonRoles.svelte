<script lang="ts">
	/** The roles that one person has, given and taken away by who may. */
	import type { HeldRole, PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
	import type { PersonAction } from './do.ts'

	type Props = {
		person: ShownPerson
		sheet: PeopleSheet
		/** Does it, and says what came of it; whether it was done. */
		act: (asked: PersonAction, done?: string) => Promise<boolean>
	}

	let { person, sheet, act }: Props = $props()

	const givable = $derived(
		sheet.roles.filter((role) => role.mayGrant && !person.roles.some((held) => held.role === role.id && !held.through))
	)

	const roleName = (held: HeldRole) => sheet.roles.find((role) => role.id === held.role)?.name ?? ''
	const mayTake = (held: HeldRole) =>
		!person.isMe && !held.through && (sheet.roles.find((role) => role.id === held.role)?.mayGrant ?? false)
</script>

<section aria-labelledby="roles">
	<h3 id="roles">Roles</h3>
	<ul>
		{#each person.roles as held (`${held.role} ${held.through ?? ''}`)}
			<li>
				<strong>{roleName(held)}</strong>
				{#if held.through}<span class="quiet">through {held.through}</span>
				{:else if mayTake(held) && sheet.isSteward}
					<label
						><input
							type="checkbox"
							checked={held.mayPassOn}
							onchange={(event) => act({ kind: 'give role', role: held.role, mayPassOn: event.currentTarget.checked })}
						/> may pass it on</label
					>
				{:else if held.mayPassOn}<span class="quiet">may pass it on</span>{/if}
				{#if mayTake(held)}<button
						class="btn plain"
						aria-label="Take {roleName(held)} away"
						onclick={() => act({ kind: 'take role', role: held.role }, `${roleName(held)} is taken away.`)}
						>Take away</button
					>{/if}
			</li>
		{:else}
			<li class="quiet">No roles: they see only what everyone may see.</li>
		{/each}
	</ul>
	{#if person.isMe}
		<p class="quiet">Nobody changes their own roles; another steward does.</p>
	{:else if givable.length > 0}
		<label class="give">
			Give
			<select
				class="field"
				value=""
				onchange={async (event) => {
					const role = Number(event.currentTarget.value)
					const given = givable.find((each) => each.id === role)?.name ?? ''
					event.currentTarget.value = ''
					if (role > 0) await act({ kind: 'give role', role, mayPassOn: false }, `${given} is given, from now on.`)
				}}
			>
				<option value="">a role</option>
				{#each givable as role (role.id)}<option value={role.id}>{role.name}</option>{/each}
			</select>
		</label>
	{/if}
</section>
