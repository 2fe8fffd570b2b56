<script lang="ts">
	/** Ways into apps beside being named one by one: which are open, and opening another. */
	import type { AppSummary } from '$lib/core/requests/bench.ts'
	import type { PeopleSheet } from '$lib/core/requests/people.ts'
	import type { Proof, ShownWay } from '$lib/core/requests/joining.ts'
	import { showDay } from '../dates.ts'
	import OpenWay from './OpenWay.svelte'
	import { PeopleActions } from './people-actions.svelte.ts'

	type Props = {
		sheet: PeopleSheet
		ways: readonly ShownWay[]
		/** By what people prove who they are, for each app that has ways in. */
		proofs: readonly { readonly app: number; readonly name: string; readonly proofs: readonly Proof[] }[]
		apps: readonly AppSummary[]
	}

	let { sheet, ways, proofs, apps }: Props = $props()

	const DAY_MS = 86_400_000

	const actions = new PeopleActions()

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
	<OpenWay {sheet} {apps} {actions} />
</div>

<style>
	.scroll {
		overflow-x: auto;
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
	@media (max-width: 700px) {
		legend {
			float: none;
		}
	}
</style>
