<script lang="ts">
	/** Lines that a table without any could have, each as a sentence with what it comes to, to be taken by a press. */
	import { ACCESS_LINE } from '$lib/core/sentence/access-line.ts'
	import { printText } from '$lib/core/sentence/print.ts'
	import type { LineValue } from '$lib/core/sentence/types.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import type { ProposedAccess } from '$lib/core/requests/access.ts'

	type Props = {
		proposed: readonly ProposedAccess[]
		vocabulary: Vocabulary
		table: number
		ontake: (line: LineValue) => void
	}

	let { proposed, vocabulary, table, ontake }: Props = $props()

	let role = $state(0)

	const chosen = ({ line, asksRole }: ProposedAccess): LineValue => ({
		...line,
		role: asksRole ? role || null : line.role
	})

	function comesTo({ comesTo: found }: ProposedAccess): string {
		if (!found) return ''
		const rows =
			found.least === found.most ? countOf(found.most, 'row') : `${found.least} to ${countOf(found.most, 'row')}`
		return `${countOf(found.people, 'person', 'people')} · ${rows} each`
	}
</script>

<section aria-labelledby="proposed">
	<h2 id="proposed">Nobody but its keepers sees this table yet</h2>
	<p class="quiet">Take a line to begin with; it can be changed before it is saved.</p>
	<ul>
		{#each proposed as each (each.says)}
			<li>
				<div>
					<p class="says">{each.says}</p>
					<p class="sentence">{printText(ACCESS_LINE.kind, chosen(each), vocabulary, table)}</p>
					{#if each.refused}<p class="says-wrong">{each.refused}</p>{/if}
					{#if each.asksRole}
						<label>
							Role
							<select class="field" bind:value={role}>
								<option value={0}>choose one</option>
								{#each vocabulary.roles as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
							</select>
						</label>
					{/if}
				</div>
				<span class="quiet comes">{comesTo(each)}</span>
				<button
					class="btn"
					aria-label="Take: {each.says}"
					disabled={each.refused !== undefined || (each.asksRole && role === 0)}
					onclick={() => ontake(chosen(each))}>Take it</button
				>
			</li>
		{/each}
	</ul>
</section>

<style>
	section {
		padding: 1rem 1.3rem 1.2rem;
		border-bottom: 1px solid var(--zinc-3);
	}
	ul {
		list-style: none;
		margin: 0.7rem 0 0;
		padding: 0;
		border-top: 1px solid var(--zinc-3);
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto auto;
		align-items: center;
		gap: 0.4rem 1.2rem;
		padding: 0.6rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	.says {
		font: 600 0.95rem var(--head);
	}
	.sentence {
		font-size: 0.95rem;
	}
	label {
		display: inline-flex;
		align-items: center;
		gap: 0.5rem;
		margin-top: 0.3rem;
	}
	.comes {
		white-space: nowrap;
	}
</style>
