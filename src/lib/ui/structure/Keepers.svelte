<script lang="ts">
	/** Who keeps a table: sees all of it, writes its lines, and looks at it as others see it. */
	import { invalidateAll } from '$app/navigation'
	import { page } from '$app/state'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { changeStructure } from './structure.ts'

	type Props = { table: BenchTable }

	let { table }: Props = $props()

	const id = $props.id()
	let wrong = $state('')
	const builders = $derived(
		// The Bench's layout gives it.
		(page.data['bench'] as { people: readonly { person: number; name: string; roles: readonly string[] }[] }).people
	)
	const nameOf = (person: number) => builders.find((each) => each.person === person)?.name ?? 'somebody'
	const others = $derived(
		builders.filter((each) => each.roles.includes('Builders') && !table.keepers.includes(each.person))
	)

	async function keep(keepers: readonly number[]) {
		const answer = await changeStructure({ kind: 'keepers', table: table.id, keepers })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		wrong = ''
		// Who keeps a table is no part of what Undo puts back.
		await invalidateAll()
	}
</script>

<h3>Kept by</h3>
<p class="quiet">Keepers see all of its rows and say who else may. Other builders see what the lines let them.</p>
<ul>
	{#each table.keepers as person (person)}
		<li>
			{nameOf(person)}
			<button
				type="button"
				class="btn plain"
				disabled={table.keepers.length < 2}
				aria-label="{nameOf(person)} keeps it no more"
				onclick={() => keep(table.keepers.filter((each) => each !== person))}>Take off</button
			>
		</li>
	{/each}
</ul>
{#if others.length > 0}
	<label for="{id}-other">Another keeper</label>
	<select
		id="{id}-other"
		class="field"
		value=""
		onchange={(event) => void keep([...table.keepers, Number(event.currentTarget.value)])}
	>
		<option value=""></option>
		{#each others as each (each.person)}<option value={each.person}>{each.name}</option>{/each}
	</select>
{/if}
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}

<style>
	h3 {
		margin: 0.9rem 0 0.2rem;
		font-size: 0.95rem;
	}
	p {
		margin: 0.3rem 0;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0.2rem 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
	}
	label {
		font-weight: 600;
	}
</style>
