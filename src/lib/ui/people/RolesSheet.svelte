<script lang="ts">
	/** The roles: what each is for, which others it brings with it, and whether a condition gives it. */
	import type { PeopleSheet, ShownRole } from '$lib/core/requests/people.ts'
	import { PeopleActions } from './people-actions.svelte.ts'
	import OpenColumns from './OpenColumns.svelte'

	type Props = { sheet: PeopleSheet }

	let { sheet }: Props = $props()

	const EXAMPLE = 'Grade = "senior"'

	let name = $state('')
	const actions = new PeopleActions()
	let open = $state<number | undefined>()
	// An empty list has no type of its own.
	let draft = $state({ name: '', about: '', includes: [] as number[], where: '' })

	const nameOf = (id: number) => sheet.roles.find((role) => role.id === id)?.name ?? ''
	const count = (rows: number, one: string, many: string) => `${rows} ${rows === 1 ? one : many}`

	async function add(event: SubmitEvent) {
		event.preventDefault()
		if (await actions.act({ kind: 'add role', name, about: '' })) name = ''
	}

	function edit(role: ShownRole) {
		open = open === role.id ? undefined : role.id
		draft = { name: role.name, about: role.about, includes: [...role.includes], where: role.where }
		actions.wrong = ''
	}

	async function save(event: SubmitEvent, role: number) {
		event.preventDefault()
		if (await actions.act({ kind: 'change role', role, ...draft })) open = undefined
	}
</script>

<div class="roles">
	<header>
		<h2>Roles</h2>
		<p class="quiet">
			A role lets nobody see anything by itself: the lines at each table's Access say what it may do. Adding a role
			never takes anything away.
		</p>
	</header>
	{#if actions.wrong}<p class="says-wrong" role="alert">{actions.wrong}</p>{/if}
	<table class="ruled">
		<thead><tr><th>Role</th><th>Held by</th><th>Lines</th><th>Brings with it</th><td></td></tr></thead>
		<tbody>
			{#each sheet.roles as role (role.id)}
				<tr>
					<td
						><strong>{role.name}</strong>{#if role.about}<span class="quiet about">{role.about}</span
							>{/if}{#if role.where}<span class="about">whoever fits <code>{role.where}</code></span>{/if}</td
					>
					<td>{count(role.holders, 'person', 'people')}{role.where ? ' by name' : ''}</td>
					<td>{count(role.lines, 'line', 'lines')}</td>
					<td>{role.includes.map(nameOf).join(', ') || '–'}</td>
					<td>
						{#if role.fixed}<span class="quiet">part of the program</span>
						{:else if sheet.isSteward}<button class="btn" aria-expanded={open === role.id} onclick={() => edit(role)}
								>Change</button
							>{/if}
					</td>
				</tr>
				{#if open === role.id}
					<tr class="opened">
						<td colspan="5">
							<form onsubmit={(event) => save(event, role.id)}>
								<label for="role-name">Name</label>
								<input id="role-name" class="field" required maxlength="80" bind:value={draft.name} />
								<label for="role-about">What it is for</label>
								<input id="role-about" class="field" maxlength="500" bind:value={draft.about} />
								<fieldset>
									<legend>Brings these with it</legend>
									{#each sheet.roles.filter((each) => each.id !== role.id) as each (each.id)}
										<label><input type="checkbox" value={each.id} bind:group={draft.includes} /> {each.name}</label>
									{/each}
								</fieldset>
								<label for="role-where">Held by everybody whose row fits (may stay empty)</label>
								<input
									id="role-where"
									class="field formula"
									bind:value={draft.where}
									placeholder={EXAMPLE}
									autocomplete="off"
								/>
								<p class="row">
									<button class="btn main">Save</button>
									<button type="button" class="btn" onclick={() => (open = undefined)}>Close</button>
									<button
										type="button"
										class="btn danger"
										onclick={() => actions.act({ kind: 'remove role', role: role.id })}>Remove the role</button
									>
								</p>
							</form>
						</td>
					</tr>
				{/if}
			{/each}
		</tbody>
	</table>
	<form onsubmit={add}>
		<label for="new-role">A new role</label>
		<p class="row">
			<input id="new-role" class="field" required maxlength="80" bind:value={name} placeholder="Crane drivers" />
			<button class="btn main">Add it</button>
		</p>
	</form>
	{#if sheet.asMe.length > 0}<OpenColumns columns={sheet.asMe} />{/if}
</div>

<style>
	.roles {
		display: grid;
		gap: 1.2rem;
		padding: 1.2rem 1.6rem 2rem;
		max-width: 68rem;
		align-content: start;
	}
	header {
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.6rem;
	}
	.about {
		display: block;
		font-size: 0.9rem;
	}
	.opened > td {
		background: var(--limewash);
		padding: 1rem;
	}
	form {
		display: grid;
		gap: 0.4rem;
		max-width: 40rem;
	}
	form > label,
	legend {
		font-weight: 600;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.2rem;
		border: 0;
		margin: 0.3rem 0;
		padding: 0;
	}
	fieldset label {
		display: inline-flex;
		align-items: center;
		gap: 0.4rem;
		min-height: 30px;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.row .field {
		width: auto;
		min-width: 14rem;
	}
	.row .danger {
		margin-left: auto;
	}
</style>
