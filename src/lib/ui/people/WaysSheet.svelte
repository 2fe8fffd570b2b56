<script lang="ts">
	/** Ways into apps beside being named one by one: which are open, and opening another. */
	import { untrack } from 'svelte'
	import type { AppSummary } from '$lib/core/requests/bench.ts'
	import type { PeopleSheet } from '$lib/core/requests/people.ts'
	import type { Proof, ShownWay, WayKind } from '$lib/core/requests/joining.ts'
	import { showDay } from '../dates.ts'
	import { PeopleActions } from './people-actions.svelte.ts'

	type Props = {
		sheet: PeopleSheet
		ways: readonly ShownWay[]
		/** By what people prove who they are, for each app that has ways in. */
		proofs: readonly { readonly app: number; readonly name: string; readonly proofs: readonly Proof[] }[]
		apps: readonly AppSummary[]
	}

	let { sheet, ways, proofs, apps }: Props = $props()

	const KINDS: readonly { kind: WayKind; name: string; about: string }[] = [
		{
			kind: 'domain',
			name: 'Addresses at a domain',
			about: 'Whoever reads mail at it comes in by a link that is sent there.'
		},
		{ kind: 'code', name: 'An invitation code', about: 'Whoever has it comes in, as often and as long as you say.' },
		{ kind: 'phrase', name: 'A pass phrase', about: 'Whoever knows it comes in. Only its hash is kept: note it down.' },
		{ kind: 'doorstep', name: 'The doorstep', about: 'People ask, and wait until somebody lets them in.' },
		{ kind: 'visitors', name: 'Visitors', about: 'Anybody may look, without signing in, as the role that you choose.' }
	]
	const DAY_MS = 86_400_000

	const live = $derived(apps.filter((app) => app.live !== null))
	let app = $state(untrack(() => apps.find((each) => each.live !== null)?.id ?? 0))
	let kind = $state<WayKind>('code')
	let word = $state('')
	let into = $state('')
	let uses = $state<number | null>(null)
	let lastDay = $state('')
	let asks = $state('')
	let words = $state('')
	const actions = new PeopleActions()
	const about = $derived(KINDS.find((each) => each.kind === kind)?.about)

	async function open(event: SubmitEvent) {
		event.preventDefault()
		const [what, id] = into.split(' ')
		const asked = {
			kind: 'open way' as const,
			app,
			way: kind,
			word,
			role: what === 'role' ? Number(id) : null,
			team: what === 'team' ? Number(id) : null,
			uses: kind === 'code' ? uses : null,
			lastDay: kind === 'code' && lastDay !== '' ? lastDay : null,
			asks: kind === 'doorstep' ? asks : '',
			words: kind === 'doorstep' ? words : ''
		}
		if (await actions.act(asked)) word = ''
	}

	/** The box says what holds, also where it was refused. */
	async function setProof(door: number, proof: Proof, box: HTMLInputElement) {
		if (!(await actions.act({ kind: 'set proof', app: door, proof: proof.id, open: box.checked })))
			box.checked = proof.open
	}

	const close = (way: number) => actions.act({ kind: 'close way', way })

	function says(way: ShownWay): string {
		if (way.kind === 'domain') return `Addresses at ${way.word}`
		if (way.kind === 'phrase') return 'A pass phrase'
		if (way.kind === 'doorstep') return 'The doorstep'
		if (way.kind === 'visitors') return 'Visitors, without signing in'
		return `The code ${way.word}`
	}

	function limits({ usesLeft, endsAt }: ShownWay): string {
		const left = usesLeft === null ? '' : `${usesLeft} more ${usesLeft === 1 ? 'time' : 'times'}`
		const until = endsAt === null ? '' : `until ${showDay(endsAt - DAY_MS)}`
		return [left, until].filter(Boolean).join(', ')
	}
</script>

<div class="single">
	<header>
		<h2>Ways in</h2>
		<p class="quiet">
			People named one by one come in always. Beside that each app can have ways of its own; each puts whoever comes
			into one role or team.
		</p>
	</header>
	{#if actions.wrong}<p class="says-wrong" role="alert">{actions.wrong}</p>{/if}
	{#if ways.length > 0}
		<div class="scroll">
			<table class="ruled">
				<thead><tr><th>App</th><th>Way</th><th>Gives</th><th>Limit</th><th>Opened by</th><td></td></tr></thead>
				<tbody>
					{#each ways as way (way.id)}
						<tr>
							<td><strong>{way.appName}</strong><br /><a class="mono" href="/door/{way.app}">/door/{way.app}</a></td>
							<td>{says(way)}</td>
							<td>{way.gives}</td>
							<td>{limits(way)}</td>
							<td>{way.openedBy}</td>
							<td class="num"
								><button class="btn" onclick={() => close(way.id)} aria-label="Close {says(way)} into {way.appName}"
									>Close</button
								></td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	{:else}
		<p>No way is open: only people who are named come in.</p>
	{/if}
	{#if proofs.some((each) => each.proofs.length > 1)}
		<section>
			<h3>By what people prove at the door who they are</h3>
			{#each proofs as door (door.app)}
				<fieldset>
					<legend>{door.name}</legend>
					{#each door.proofs as proof (proof.id)}
						<label class="tick">
							<input
								type="checkbox"
								checked={proof.open}
								onchange={(event) => setProof(door.app, proof, event.currentTarget)}
							/>
							{proof.name}
						</label>
					{/each}
				</fieldset>
			{/each}
		</section>
	{/if}
	<form onsubmit={open}>
		<h3>Open a way</h3>
		<label for="way-app">Into</label>
		<select id="way-app" class="field" required bind:value={app}>
			{#each live as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
		</select>
		<label for="way-kind">For</label>
		<select id="way-kind" class="field" bind:value={kind}>
			{#each KINDS as each (each.kind)}<option value={each.kind}>{each.name}</option>{/each}
		</select>
		<p class="quiet note">{about}</p>
		{#if kind === 'domain'}
			<label for="way-word">Domain</label>
			<input id="way-word" class="field" required bind:value={word} placeholder="varrow.example" />
		{:else if kind === 'code'}
			<label for="way-word">Code</label>
			<input id="way-word" class="field" required bind:value={word} placeholder="QUAY-2027" autocomplete="off" />
			<label for="way-uses">How often</label>
			<input id="way-uses" class="field" type="number" min="1" max="100000" bind:value={uses} placeholder="no limit" />
			<label for="way-end">Last day</label>
			<input id="way-end" class="field" type="date" bind:value={lastDay} />
		{:else if kind === 'phrase'}
			<label for="way-word">Pass phrase</label>
			<input id="way-word" class="field" required bind:value={word} autocomplete="off" />
		{:else if kind === 'doorstep'}
			<label for="way-asks">What is asked</label>
			<input id="way-asks" class="field" bind:value={asks} placeholder="Which boat do you come with?" />
			<label for="way-words">Said while they wait</label>
			<textarea id="way-words" class="field" rows="2" bind:value={words}></textarea>
		{/if}
		<label for="way-into">Gives</label>
		<select id="way-into" class="field" required bind:value={into}>
			<option value=""></option>
			{#each sheet.roles.filter((role) => !role.fixed) as role (role.id)}
				<option value="role {role.id}">the role {role.name}</option>
			{/each}
			{#if kind !== 'visitors'}
				{#each sheet.teams as team (team.id)}<option value="team {team.id}">the team {team.name}</option>{/each}
			{/if}
		</select>
		<p class="end"><button class="btn main">Open it</button></p>
	</form>
</div>

<style>
	.scroll {
		overflow-x: auto;
	}
	form {
		display: grid;
		grid-template-columns: 9rem minmax(0, 24rem);
		gap: 0.5rem 0.8rem;
		align-items: center;
		border-top: 1px solid var(--zinc-3);
		padding-top: 1rem;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1.2rem;
		align-items: center;
		border: 0;
		margin: 0;
		padding: 0.5rem 0 0;
	}
	legend {
		float: left;
		min-width: 9rem;
		padding: 0;
		font-weight: 600;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		font-weight: 400;
		min-height: 2rem;
	}
	h3,
	.note,
	.end {
		grid-column: 1 / -1;
	}
	.note {
		padding-left: 9.8rem;
	}
	label {
		font-weight: 600;
	}
	@media (max-width: 700px) {
		form {
			grid-template-columns: minmax(0, 1fr);
		}
		.note {
			padding-left: 0;
		}
		legend {
			float: none;
		}
	}
</style>
