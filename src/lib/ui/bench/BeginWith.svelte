<script lang="ts">
	/** What a new app begins with: a common job, found by what it is for, or a file or tables of one's own. */
	import { STARTERS } from '$lib/core/app/starters/all.ts'
	import { findStarters } from '$lib/core/app/starters/find-starters.ts'
	import { showCount } from '../count.ts'

	type Props = {
		tables: readonly { readonly id: number; readonly name: string; readonly rows: number }[]
		roles: readonly { readonly id: number; readonly name: string }[]
		/** By its id; blank for one's own. */
		starter: string
	}

	let { tables, roles, starter = $bindable() }: Props = $props()

	let sought = $state('')
	/** Whatever is looked for, what was chosen stands there. */
	const found = $derived.by(() => {
		const fitting = findStarters(sought)
		const chosen = STARTERS.filter(({ id }) => id === starter && !fitting.some((each) => each.id === id))
		return [...chosen, ...fitting]
	})
</script>

<fieldset>
	<legend>What it begins with</legend>
	<label class="way"
		><input type="radio" name="starter" value="" bind:group={starter} /><span
			><strong>A file, or tables that are here</strong>
			<span class="quiet">screens are made of them as they fit: list, sheet, form, board, calendar, map, chart</span
			></span
		></label
	>
	<label class="seek" for="sought">or a common job</label>
	<input id="sought" type="search" class="field" placeholder="What is it for?" bind:value={sought} />
	{#each found as { id, name, about, tables: made } (id)}
		<label class="way"
			><input type="radio" name="starter" value={id} bind:group={starter} /><span
				><strong>{name}</strong>
				<span class="quiet">{about} · {made.map((table) => table.name.toLowerCase()).join(', ')}</span></span
			></label
		>
	{:else}<p class="quiet">
			No starter is for that. Begin with a file or tables of yours, or look for other words.
		</p>{/each}
</fieldset>
{#if starter === ''}
	<fieldset>
		<legend>Tables to make screens from</legend>
		{#each tables as table (table.id)}
			<label class="tick"
				><input type="checkbox" name="table" value={table.id} />{table.name}<span class="quiet"
					>{showCount(table.rows)} {table.rows === 1 ? 'row' : 'rows'}</span
				></label
			>
		{/each}
		<p class="quiet">All of what is made can be changed. Choose none to begin with a spreadsheet file.</p>
	</fieldset>
{:else}
	<label for="role">Who works with it</label>
	<select id="role" name="role" class="field" required>
		<option value="">choose a role</option>
		{#each roles as role (role.id)}<option value={role.id}>{role.name}</option>{/each}
	</select>
	<p class="quiet">
		They see, add and change all rows of its tables. Whom else it is opened to, and how far, is written at Access.
	</p>
{/if}

<style>
	fieldset {
		width: 100%;
		border: 0;
		padding: 0;
		margin: 0.6rem 0 0;
	}
	legend,
	.seek,
	label[for='role'] {
		font-weight: 600;
	}
	.seek {
		display: block;
		margin: 0.8rem 0 0.3rem;
	}
	.way {
		display: grid;
		grid-template-columns: 1.8rem minmax(0, 1fr);
		align-items: baseline;
		padding: 0.55rem 0;
		border-top: 1px solid var(--zinc-2);
	}
	.way .quiet {
		display: block;
	}
	.tick {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		padding: 0.25rem 0;
	}
</style>
