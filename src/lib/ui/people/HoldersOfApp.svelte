<script lang="ts">
	/** Who has an app, and as what. */
	import type { PeopleSheet, SharedApp } from '$lib/core/requests/people.ts'
	import { personAddress, personName } from './known-by.ts'

	type Props = { sheet: PeopleSheet; app: SharedApp }

	let { sheet, app }: Props = $props()

	const roleName = (id: number) => sheet.roles.find((each) => each.id === id)?.name ?? 'everyone'
	const holders = $derived(
		app.people.flatMap(({ row, roles, builds }) => {
			const person = sheet.people.find((each) => each.row.id === row)
			const as = [...roles.map(roleName), ...(builds ? ['builds it'] : [])]
			return person ? [{ row, person, as: as.join(', ') }] : []
		})
	)
</script>

<section>
	<h2>Who has {app.name}</h2>
	<table class="ruled">
		<thead><tr><th>Person</th><th>As</th></tr></thead>
		<tbody>
			{#each holders as { row, person, as } (row)}
				<tr>
					<td>
						<a href="/people?person={row}"><strong>{personName(sheet, person)}</strong></a><br />
						<span class="quiet">{personAddress(sheet, person)}</span>
					</td>
					<td>{as}</td>
				</tr>
			{:else}
				<tr><td colspan="2">Nobody yet.</td></tr>
			{/each}
		</tbody>
	</table>
</section>
