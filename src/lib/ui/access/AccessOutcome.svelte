<script lang="ts">
	/** What the lines of a table come to, person by person; those for whom it is the same stand together. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { AccessSheet } from '$lib/core/requests/access.ts'
	import { showCounted } from '../count.ts'
	import { groupPeople } from './group-people.ts'
	import { without } from './say-turns.ts'

	type Props = { sheet: AccessSheet }

	let { sheet }: Props = $props()

	const groups = $derived(groupPeople(sheet.people))
	const most = $derived(Math.max(1, ...sheet.people.map((person) => person.seen)))
</script>

<section>
	<h2>What it comes to, person by person</h2>
	<table class="ruled">
		<thead>
			<tr><th>People</th><th>Roles</th><th>Rows seen</th><th class="num">May change</th><th>Columns kept back</th></tr>
		</thead>
		<tbody>
			{#each groups as { people, ...person } (people[0])}
				{@const by = person.seen - person.before}
				<tr class:turned={by !== 0}>
					<td><strong>{people.join(', ')}</strong></td>
					<td>{person.roles.join(', ').toLowerCase() || 'none'}</td>
					<td class="seen">
						<span class="bar" style:width="{Math.round((person.seen / most) * 120)}px"></span>
						<span class="tabular">{showCounted(person.seen)}</span>
						{#if by !== 0}<span class="stamp {by > 0 ? 'good' : 'bad'}">{by > 0 ? `+${by}` : `−${-by}`}</span>{/if}
					</td>
					<td class="num">{showCounted(person.change)}</td>
					<td class="quiet"
						>{person.seen === 0 ? 'all' : person.withheld.join(', ').toLowerCase() || 'none'}
						{#each person.seen > 0 ? without(person.withheld, person.withheldBefore) : [] as name (name)}
							<span class="stamp bad">−{name}</span>
						{/each}
						{#each person.seen > 0 ? without(person.withheldBefore, person.withheld) : [] as name (name)}
							<span class="stamp good">+{name}</span>
						{/each}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if sheet.unlisted > 0}
		<p class="quiet">
			and {countOf(sheet.unlisted, 'person', 'people')} more, by name. The lines hold for them too; they are not counted for
			here.
		</p>
	{/if}
</section>

<style>
	section {
		padding: 1rem 1.3rem 2rem;
	}
	.bar {
		display: inline-block;
		height: 8px;
		background: var(--sea);
		margin-right: 0.5rem;
	}
	.seen {
		white-space: nowrap;
	}
	.tabular {
		font-variant-numeric: tabular-nums;
	}
	td .stamp {
		margin-right: 0.3rem;
	}
	.turned {
		background: var(--selected);
	}
</style>
