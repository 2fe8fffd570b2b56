<script lang="ts">
	/** Everybody against every table: how many rows each person sees, and what else they may do there. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { AccessMatrix, MatrixCell } from '$lib/core/requests/access.ts'
	import AccessNav from './AccessNav.svelte'
	import { showCounted } from '../count.ts'

	type Props = { matrix: AccessMatrix; app: number }

	let { matrix, app }: Props = $props()

	let wanted = $state('')
	const people = $derived(
		matrix.people.filter(({ name, roles }) =>
			`${name} ${roles.join(' ')}`.toLowerCase().includes(wanted.trim().toLowerCase())
		)
	)

	const DOES = { see: 'sees', add: 'adds', change: 'changes', remove: 'removes' }

	function says({ seen, may, keeps }: MatrixCell): string {
		if (keeps) return 'keeps it'
		if (seen === 0 && may.length === 0) return ''
		return may.map((verb) => DOES[verb]).join(', ') || 'sees only'
	}
</script>

<div class="bay">
	<AccessNav tables={matrix.tables} {app} at={undefined} />
	<div class="work">
		<header>
			<h1>Everybody, all tables</h1>
			<p class="quiet">How many rows each person sees of the tables that you keep, and what else they may do there.</p>
			<label>Only <input class="field" bind:value={wanted} placeholder="a name or a role" /></label>
		</header>
		<div class="scroll">
			<table class="ruled">
				<thead>
					<tr>
						<th>Person</th>
						<th>Roles</th>
						{#each matrix.tables as table (table.id)}
							<th class="num"><a href="/bench/{app}/access?table={table.id}">{table.name}</a></th>
						{/each}
					</tr>
				</thead>
				<tbody>
					{#each people as person (person.person)}
						<tr>
							<td class="name"><strong>{person.name}</strong></td>
							<td>{person.roles.join(', ').toLowerCase() || 'none'}</td>
							{#each person.cells as cell, i (i)}
								<td class="num" class:none={cell.seen === 0 && cell.may.length === 0}>
									{showCounted(cell.seen)}
									<span class="says">{says(cell)}</span>
								</td>
							{/each}
						</tr>
					{:else}
						<tr><td colspan={matrix.tables.length + 2}>Nobody of that name or role.</td></tr>
					{/each}
				</tbody>
			</table>
			{#if matrix.unlisted > 0}<p class="quiet">and {countOf(matrix.unlisted, 'person', 'people')} more.</p>{/if}
		</div>
	</div>
</div>

<style>
	.bay {
		display: grid;
		grid-template-columns: 195px minmax(0, 1fr);
		flex: 1;
	}
	.work {
		min-width: 0;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.3rem 1rem;
		padding: 0.9rem 1.3rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	label {
		margin-left: auto;
		font-weight: 600;
	}
	label .field {
		display: inline-block;
		font-weight: 400;
		width: 13rem;
		margin-left: 0.4rem;
	}
	.scroll {
		overflow-x: auto;
		padding: 0 1.3rem 2rem;
	}
	.name {
		white-space: nowrap;
	}
	td {
		vertical-align: top;
	}
	.num {
		font-variant-numeric: tabular-nums;
	}
	.says {
		display: block;
		font-size: 0.85rem;
		color: var(--zinc-7);
	}
	.none {
		color: var(--zinc-7);
		background: var(--limewash);
	}
</style>
