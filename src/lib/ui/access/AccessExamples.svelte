<script lang="ts">
	/** The pinned examples of a table: who must, or must not, see which row, and whether the lines above hold to it. */
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { ShownExample } from '$lib/core/requests/access.ts'
	import { send } from '../send.ts'

	type Props = { table: BenchTable; examples: readonly ShownExample[]; onchange: () => void }

	let { table, examples, onchange }: Props = $props()

	let wrong = $state('')

	async function takeOff({ person, row }: ShownExample) {
		const answer = await send('PATCH', `/bench/lines/${table.id}`, { kind: 'unpin', person, row })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onchange()
	}
</script>

<section aria-labelledby="examples">
	<h2 id="examples">Examples that must hold</h2>
	{#if examples.length === 0}
		<p class="quiet">
			None yet. Ask below why somebody sees a row, and keep the answer: whoever changes the lines is then held to it.
		</p>
	{:else}
		<ul>
			{#each examples as example (`${example.person} ${example.row}`)}
				<li>
					<span class="stamp {example.holds ? 'good' : 'bad'}">{example.holds ? 'holds' : 'broken'}</span>
					<span
						><strong>{example.name}</strong>
						{example.sees ? 'must see' : 'must not see'} <strong>{example.label}</strong></span
					>
					<button class="btn plain" onclick={() => takeOff(example)}>Take off</button>
				</li>
			{/each}
		</ul>
	{/if}
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
</section>

<style>
	section {
		padding: 1rem 1.3rem;
		border-top: 1px solid var(--zinc-3);
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0.5rem 0 0;
	}
	li {
		display: flex;
		align-items: center;
		gap: 0.7rem;
		padding: 0.2rem 0;
	}
</style>
