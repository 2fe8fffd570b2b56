<script lang="ts">
	/** For stewards: which columns of people builders may write as `me.…` though they do not see them of everybody. */
	import type { PeopleSheet } from '$lib/core/requests/people.ts'
	import { PeopleActions } from './people-actions.svelte.ts'

	type Props = { columns: PeopleSheet['asMe'] }

	let { columns }: Props = $props()

	const actions = new PeopleActions()
	let done = $state('')

	/** A tick that was refused is taken back, so that the box says what holds. */
	async function open(column: Props['columns'][number], box: HTMLInputElement) {
		done = ''
		const { checked } = box
		if (!(await actions.act({ kind: 'open as me', column: column.id, open: checked }))) box.checked = column.open
		else done = `Builders may${checked ? '' : ' no longer'} write me.${column.name}.`
	}
</script>

<section aria-labelledby="as-me">
	<h2 id="as-me">What builders may write of people</h2>
	<p class="quiet">
		A line such as <code>Harbour = me.Harbour</code> reads the row of whoever looks. A builder writes <code>me.</code> with
		the columns that they see of everybody, and with those ticked here. By trying lines a builder can find out what stands
		in them, person by person.
	</p>
	{#if actions.wrong}<p class="says-wrong" role="alert">{actions.wrong}</p>{/if}
	<p class="done" role="status">{done}</p>
	<ul>
		{#each columns as column (column.id)}
			<li>
				<label>
					<input type="checkbox" checked={column.open} onchange={(event) => void open(column, event.currentTarget)} />
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
	.done {
		margin: 0.4rem 0 0;
		min-height: 1.5em;
	}
	ul {
		list-style: none;
		margin: 0.2rem 0 0;
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
