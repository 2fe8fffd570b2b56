<script lang="ts">
	/** The rows that make a number up, page by page, each opening its screen where it has one. */
	import { page } from '$app/state'
	import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { AppBase, ScreenPath } from '$lib/core/requests/screens.ts'
	import type { RowsBehind } from '$lib/core/requests/shown-rows.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { send } from '../../send.ts'
	import { heldIn } from '../screen-address.ts'

	type Props = {
		line: RowsBehind & { readonly id: string }
		path: ScreenPath
		base: AppBase
		from: string
		filters: readonly Filter[]
	}

	let { line, path, base, from, filters }: Props = $props()

	let rows = $state.raw<readonly WireRow[]>([])
	let next = $state.raw<string | null>(null)
	let wrong = $state('')
	let busy = $state(true)
	let asked = 0

	const [first, ...others] = $derived(line.columns)
	const textOf = (row: WireRow, i: number) => {
		const column = line.columns[i]
		return column ? showCell(column, row.cells[cellKey(column.id)]) : ''
	}

	async function read(after: string | undefined) {
		const mine = ++asked
		busy = true
		const answer = await send('POST', `${path}/list`, {
			...{ line: line.id, narrowing: { find: '', filters: [...filters] }, held: heldIn(page.url) },
			...(after === undefined ? {} : { after })
		})
		// Of two questions the answer to the later one counts, whichever comes first.
		if (mine !== asked) return
		busy = false
		wrong = answer.ok ? '' : answer.refusal.message
		if (!answer.ok) return
		rows = after === undefined ? answer.value.rows : [...rows, ...answer.value.rows]
		next = answer.value.next
	}

	$effect(() => {
		// Read anew for other filters, and when the number they make up was.
		void [filters, line]
		void read(undefined)
	})
</script>

{#if first}
	<!-- Whoever has no pointer scrolls it too, where no row of it opens anything. -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<ul tabindex={line.opens === null ? 0 : undefined} aria-label="Its rows">
		{#each rows as row (row.id)}
			<li>
				{#if line.opens !== null}<a href="{base}/{line.opens}?row={row.id}&from={from}">{textOf(row, 0) || '(blank)'}</a
					>
				{:else}<strong>{textOf(row, 0) || '(blank)'}</strong>{/if}
				<span class="quiet"
					>{others
						.map((_column, i) => textOf(row, i + 1))
						.filter(Boolean)
						.join(' · ')}</span
				>
			</li>
		{/each}
	</ul>
{/if}
{#if busy && rows.length === 0}<p class="quiet" role="status">Reading its rows…</p>
{:else if rows.length === 0 && wrong === ''}<p class="quiet" role="status">No row makes it up.</p>{/if}
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
{#if next}<button class="btn" disabled={busy} onclick={() => read(next ?? undefined)}>Show more</button>{/if}

<style>
	ul {
		max-height: 22rem;
		overflow: auto;
		margin: 0;
		padding: 0;
		list-style: none;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		justify-content: space-between;
		gap: 0 1rem;
		min-height: 44px;
		border-bottom: 1px solid var(--zinc-2);
	}
	a {
		display: inline-flex;
		align-items: center;
		min-height: 44px;
		font-weight: 650;
		color: inherit;
	}
	p {
		padding: 0.5rem 0;
	}
	.btn {
		min-height: 44px;
		margin-top: 0.4rem;
	}
</style>
