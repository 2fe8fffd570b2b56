<script lang="ts">
	/** For stewards: which columns of people builders may write as `me.…` though they do not see them of everybody. */
	import type { PeopleSheet } from '$lib/server/people/people-sheet.ts'
	import { Deeds } from './deeds.svelte.ts'

	type Props = { columns: PeopleSheet['asMe'] }

	let { columns }: Props = $props()

	const deeds = new Deeds()
</script>

<section aria-labelledby="as-me">
	<h2 id="as-me">What builders may write of people</h2>
	<p class="quiet">
		A line such as <code>Harbour = me.Harbour</code> reads the row of whoever looks. A builder writes <code>me.</code> with
		the columns that they see of everybody, and with those ticked here. By trying lines a builder can find out what stands
		in them, person by person.
	</p>
	{#if deeds.wrong}<p class="says-wrong" role="alert">{deeds.wrong}</p>{/if}
	<ul>
		{#each columns as column (column.id)}
			<li>
				<label>
					<input
						type="checkbox"
						checked={column.open}
						onchange={(event) =>
							void deeds.act({ kind: 'open as me', column: column.id, open: event.currentTarget.checked })}
					/>
					<code>me.{column.name}</code>
				</label>
			</li>
		{/each}
	</ul>
</section>

<style>
	section {
		margin-top: 2.5rem;
		max-width: 46rem;
	}
	ul {
		list-style: none;
		margin: 0.8rem 0 0;
		padding: 0;
		border-top: 1px solid var(--zinc-3);
	}
	li {
		border-bottom: 1px solid var(--zinc-2);
	}
	label {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		min-height: 40px;
	}
</style>
