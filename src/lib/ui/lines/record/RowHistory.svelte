<script lang="ts">
	/** What happened to a row, read when it is opened. */
	import type { HistoryEntry } from '$lib/core/requests/rows.ts'
	import { showMoment } from '../../dates.ts'
	import { ask } from '../../send.ts'

	type Props = { table: number; row: string }

	let { table, row }: Props = $props()

	const WORDS: Readonly<Record<string, string>> = {
		add: 'added it',
		change: 'changed it',
		remove: 'removed it',
		ask: 'asked for a decision',
		approved: 'approved it',
		declined: 'declined it',
		withdrawn: 'withdrew the request'
	}

	let entries = $state.raw<readonly HistoryEntry[] | undefined>()
	let wrong = $state('')

	async function read(event: Event & { currentTarget: HTMLDetailsElement }) {
		if (!event.currentTarget.open) return
		const answer = await ask(`/history/${table}?row=${row}`)
		if (!answer.ok) return void (wrong = answer.refusal.message)
		entries = answer.value
	}
</script>

<details ontoggle={read}>
	<summary>What has happened to it</summary>
	{#if wrong}<p class="says-wrong">{wrong}</p>{/if}
	<ol>
		{#each entries ?? [] as entry, i (i)}
			<li>
				<strong>{entry.who}</strong>
				{WORDS[entry.kind] ?? entry.kind} <span class="quiet">{showMoment(entry.at)}, {entry.through}</span>
				{#if entry.kind !== 'add'}
					{#each entry.cells as cell (cell.name)}<span class="cell"
							>{cell.name}: {cell.from || 'blank'} → {cell.to || 'blank'}</span
						>{/each}
				{/if}
			</li>
		{/each}
	</ol>
</details>

<style>
	summary {
		min-height: 48px;
		display: flex;
		align-items: center;
		cursor: pointer;
		font-weight: 600;
	}
	summary::before {
		content: '▸';
		margin-right: 0.5rem;
	}
	details[open] summary::before {
		content: '▾';
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0 0 0 0.9rem;
		border-left: 2px solid var(--zinc-3);
		display: grid;
		gap: 0.7rem;
	}
	.cell {
		display: block;
		color: var(--zinc-7);
	}
</style>
