<script lang="ts">
	/** The people of a workspace, by name; found by how the name begins. */
	import { goto } from '$app/navigation'
	import type { PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
	import { personName } from './known-by.ts'
	import { STATE_TONES } from './states.ts'

	type Props = {
		sheet: PeopleSheet
		chosen: ShownPerson | undefined
		/** How the names begin that are looked for. */
		starts: string
	}

	let { sheet, chosen, starts }: Props = $props()

	const PAUSE_MS = 200

	const roleNames = (person: ShownPerson) =>
		[...new Set(person.roles.map((held) => sheet.roles.find((role) => role.id === held.role)?.name ?? ''))].join(', ')

	let typing: ReturnType<typeof setTimeout> | undefined

	function look(event: Event & { currentTarget: HTMLInputElement }) {
		const { value } = event.currentTarget
		clearTimeout(typing)
		typing = setTimeout(
			() => void goto(`/people?starts=${encodeURIComponent(value)}`, { keepFocus: true, replaceState: true }),
			PAUSE_MS
		)
	}
</script>

<nav aria-label="People">
	<div class="tools">
		<input
			class="field"
			type="search"
			aria-label="Find people whose name begins with"
			placeholder="Name begins with"
			value={starts}
			oninput={look}
		/>
		{#if sheet.isSteward}<a class="btn main" href="/people?new">Add somebody</a>{/if}
	</div>
	<ul>
		{#each sheet.people as person (person.row.id)}
			<li>
				<a href="/people?person={person.row.id}" class:on={person === chosen}>
					<span class="words">
						<strong>{personName(sheet, person)}</strong>
						<span class="quiet">{roleNames(person) || 'no roles'}</span>
					</span>
					{#if person.state !== 'active'}<span class="stamp {STATE_TONES[person.state]}">{person.state}</span>{/if}
				</a>
			</li>
		{:else}
			<li class="none">Nobody's name begins like that.</li>
		{/each}
	</ul>
	{#if sheet.more}<p class="none quiet">These are the first 200. Type the beginning of a name to find others.</p>{/if}
</nav>

<style>
	nav {
		background: var(--chalk);
		border-right: 1px solid var(--zinc-3);
		min-width: 0;
	}
	.tools {
		display: flex;
		gap: 0.5rem;
		padding: 0.8rem 1rem;
	}
	.tools .field {
		min-width: 0;
		flex: 1;
	}
	.tools .btn {
		white-space: nowrap;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--zinc-2);
	}
	li a {
		display: flex;
		align-items: center;
		justify-content: space-between;
		gap: 0.6rem;
		padding: 0.45rem 1rem 0.45rem 0.75rem;
		border-bottom: 1px solid var(--zinc-2);
		border-left: 4px solid transparent;
		color: inherit;
		text-decoration: none;
	}
	li a:hover {
		background: var(--selected);
	}
	li a.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.words {
		display: grid;
		min-width: 0;
	}
	.words .quiet {
		font-size: 0.9rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.none {
		padding: 1.2rem 1.6rem;
	}
</style>
