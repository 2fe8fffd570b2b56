<script lang="ts">
	/** One person: what is known of them, the roles and teams they have, and whether they can come in. */
	import { invalidate } from '$app/navigation'
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { HeldRole, PeopleSheet, ShownPerson } from '$lib/core/requests/people.ts'
	import CellField from '../cells/CellField.svelte'
	import CellValue from '../cells/CellValue.svelte'
	import { BLANK_DRAFT, draftOf, readDraft, sameDraft, type CellDraft } from '../cells/cell-draft.ts'
	import { optionsAt } from '../cells/options.ts'
	import { showCell } from '../cells/show-cell.ts'
	import { showMoment } from '../dates.ts'
	import { send } from '../send.ts'
	import { doWithPeople, type PersonAction } from './do.ts'
	import { STATE_TONES } from './states.ts'

	type Props = { person: ShownPerson; sheet: PeopleSheet }

	let { person, sheet }: Props = $props()

	let drafts = $state.raw<Record<number, CellDraft> | undefined>()
	let words = $state('')
	let inviting = $state(false)
	let said = $state('')
	let wrong = $state('')

	const of = $derived({ person: person.row.id })
	const label = $derived(sheet.columns.find((column) => column.id === sheet.label))
	const name = $derived(label ? showCell(label, person.row.cells[cellKey(label.id)]) : '')
	const editable = $derived(
		sheet.columns.filter(
			(column) =>
				person.row.may?.change.includes(column.id) &&
				!(sheet.marked.includes(column.id) && (person.isMe || !sheet.isSteward))
		)
	)
	const givable = $derived(
		sheet.roles.filter((role) => role.mayGrant && !person.roles.some((held) => held.role === role.id && !held.through))
	)
	const joinable = $derived(sheet.teams.filter((team) => !person.teams.includes(team.id)))

	const roleName = (held: HeldRole) => sheet.roles.find((role) => role.id === held.role)?.name ?? ''
	const mayTake = (held: HeldRole) =>
		!person.isMe && !held.through && (sheet.roles.find((role) => role.id === held.role)?.mayGrant ?? false)

	async function act(asked: PersonAction, done = '') {
		const answer = await doWithPeople({ ...of, ...asked })
		wrong = answer.ok ? '' : answer.refusal.message
		said = answer.ok ? done : ''
		return answer.ok
	}

	async function save(event: SubmitEvent) {
		event.preventDefault()
		const cells = []
		for (const column of editable) {
			const was = person.row.cells[cellKey(column.id)]
			const draft = drafts?.[column.id] ?? BLANK_DRAFT
			if (sameDraft(draft, draftOf(column, was))) continue
			const reading = readDraft(column, draft)
			if (!reading.ok) return void (wrong = `${column.name}: ${reading.message}`)
			cells.push({ column: column.id, value: reading.value, was: was ?? null })
		}
		if (cells.length > 0) {
			const answer = await send('POST', `/rows/${sheet.table}`, { kind: 'change', row: person.row.id, cells })
			if (!answer.ok) return void (wrong = answer.refusal.message)
		}
		wrong = ''
		drafts = undefined
		await invalidate('app:people')
	}

	function edit() {
		drafts = Object.fromEntries(
			editable.map((column) => [column.id, draftOf(column, person.row.cells[cellKey(column.id)])])
		)
	}

	const decides = (column: ShownColumn) => sheet.marked.includes(column.id)
</script>

<article>
	<header>
		<h2>{name}</h2>
		<span class="stamp {STATE_TONES[person.state]}">{person.state}</span>
		{#if person.isMe}<span class="quiet">this is you</span>{/if}
		<span class="quiet last">{person.lastIn === null ? 'never signed in' : `last in ${showMoment(person.lastIn)}`}</span
		>
	</header>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	{#if said}<p class="done" role="status">{said}</p>{/if}

	<section aria-label="What is known">
		{#if drafts}
			<form onsubmit={save} novalidate>
				{#each editable as column (column.id)}
					<CellField
						{column}
						draft={drafts[column.id] ?? BLANK_DRAFT}
						options={optionsAt('')}
						onchange={(draft) => (drafts = { ...drafts, [column.id]: draft })}
					/>
				{/each}
				<p class="row">
					<button class="btn main">Save</button>
					<button type="button" class="btn" onclick={() => (drafts = undefined)}>Leave it as it was</button>
				</p>
			</form>
		{:else}
			<dl>
				{#each sheet.columns as column (column.id)}
					<dt>
						{column.name}{#if decides(column)}<span
								class="quiet mark"
								title="Decides what people may see: only stewards change it, and never their own">decides access</span
							>{/if}
					</dt>
					<dd><CellValue {column} cell={person.row.cells[cellKey(column.id)]} row={person.row.id} base="" /></dd>
				{/each}
			</dl>
			{#if editable.length > 0}<p><button class="btn" onclick={edit}>Change</button></p>{/if}
		{/if}
	</section>

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
								onchange={(event) =>
									act({ kind: 'give role', role: held.role, mayPassOn: event.currentTarget.checked })}
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

	<section aria-labelledby="teams">
		<h3 id="teams">Teams</h3>
		<ul>
			{#each sheet.teams.filter((team) => person.teams.includes(team.id)) as team (team.id)}
				<li>
					<strong>{team.name}</strong>
					{#if sheet.isSteward && !person.isMe}<button
							class="btn plain"
							aria-label="Take out of {team.name}"
							onclick={() => act({ kind: 'leave team', team: team.id })}>Take out</button
						>{/if}
				</li>
			{:else}
				<li class="quiet">In no team.</li>
			{/each}
		</ul>
		{#if sheet.isSteward && !person.isMe && joinable.length > 0}
			<label class="give">
				Put into
				<select
					class="field"
					value=""
					onchange={async (event) => {
						const team = Number(event.currentTarget.value)
						event.currentTarget.value = ''
						if (team > 0) await act({ kind: 'join team', team })
					}}
				>
					<option value="">a team</option>
					{#each joinable as team (team.id)}<option value={team.id}>{team.name}</option>{/each}
				</select>
			</label>
		{/if}
	</section>

	{#if sheet.isSteward}
		<section aria-labelledby="entry">
			<h3 id="entry">Coming in</h3>
			{#if inviting}
				<label for="words">What you want to add (may stay empty)</label>
				<textarea id="words" class="field" rows="3" bind:value={words}></textarea>
				<p class="row">
					<button
						class="btn main"
						onclick={async () => {
							if (
								await act(
									{ kind: 'invite', words },
									'The invitation is on its way. Its link works once, for seven days.'
								)
							)
								inviting = false
						}}>Send the invitation</button
					>
					<button class="btn" onclick={() => (inviting = false)}>Not now</button>
				</p>
			{:else}
				<p class="row">
					{#if person.state === 'suspended'}
						<button class="btn" onclick={() => act({ kind: 'let back' }, 'They can sign in again.')}>Let back in</button
						>
					{:else}
						{#if person.state !== 'active'}<button class="btn" onclick={() => (inviting = true)}
								>{person.state === 'invited' ? 'Invite again' : 'Invite'}</button
							>{/if}
						{#if person.state === 'active'}
							<button class="btn" onclick={() => act({ kind: 'sign out' }, 'They are signed out everywhere.')}
								>Sign out everywhere</button
							>
							{#if !person.isMe && person.hasFactor}<button
									class="btn"
									onclick={() => act({ kind: 'take off second factor' }, 'Signing in asks for their password alone.')}
									>Take the second step off</button
								>{/if}
						{/if}
						{#if !person.isMe}<button
								class="btn danger"
								onclick={() =>
									act({ kind: 'suspend' }, 'Suspended: signed out everywhere, and sees nothing until let back in.')}
								>Suspend</button
							>{/if}
					{/if}
				</p>
			{/if}
			{#if sheet.isSteward && person.keepsPeople !== null}
				<p>
					{person.keepsPeople
						? 'Keeps the list of people: brings files into it, and says who sees what of it.'
						: 'As a builder they could keep the list of people: bring a shared list of addresses into it, and say who sees what of it.'}
					<button
						class="btn"
						onclick={() =>
							act(
								{ kind: 'keep people', keeps: !person.keepsPeople },
								person.keepsPeople ? 'They keep it no more.' : 'They keep it from now on, on the Bench.'
							)}>{person.keepsPeople ? 'Take it from them' : 'Let them keep it'}</button
					>
				</p>
			{/if}
		</section>
	{/if}
</article>

<style>
	article {
		display: grid;
		gap: 1rem;
		padding: 1.2rem 1.6rem 2rem;
		align-content: start;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.5rem 0.9rem;
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.6rem;
	}
	h2 {
		font-size: 1.3rem;
	}
	.last {
		margin-left: auto;
	}
	section {
		display: grid;
		gap: 0.5rem;
		max-width: 44rem;
	}
	dl {
		display: grid;
		grid-template-columns: minmax(9rem, 13rem) 1fr;
		margin: 0;
	}
	dt,
	dd {
		margin: 0;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--zinc-2);
		overflow-wrap: anywhere;
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		font-weight: 600;
	}
	.mark {
		display: block;
		font-size: 0.8rem;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.3rem 1rem;
		min-height: 40px;
		border-bottom: 1px solid var(--zinc-2);
	}
	li .btn {
		margin-left: auto;
	}
	.give {
		display: flex;
		align-items: center;
		gap: 0.6rem;
	}
	.give .field {
		width: auto;
		min-width: 12rem;
	}
	form {
		display: grid;
		gap: 0.8rem;
		max-width: 30rem;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.done {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
	}
</style>
