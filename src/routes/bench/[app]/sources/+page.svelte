<script lang="ts">
	import { showCount } from '$lib/ui/count.ts'
	import { goto, invalidateAll } from '$app/navigation'
	import type { Misfit } from '$lib/core/exchange/comparison.ts'
	import { ask, send } from '$lib/ui/send.ts'
	import { showMoment } from '$lib/ui/dates.ts'

	let { data } = $props()

	const ACCEPTED = '.csv,.tsv,.txt,.xlsx,.ods,.json,.ndjson,.jsonl,.db,.sqlite,.sqlite3'
	const base = $derived(`/bench/${data.draft.id}`)
	const sources = $derived(data.bench.tables.filter((table) => table.source))
	let over = $state(false)
	let busy = $state('')
	let wrong = $state('')

	/** `again`: the table that it is brought into once more. */
	async function take(file: File | undefined, again?: number) {
		if (!file) return
		wrong = ''
		busy = file.name
		const given = await ask(`/bench/imports?name=${encodeURIComponent(file.name)}`, {
			method: 'PUT',
			// Said here, since a browser knows no type for a database, and without one the body is not passed on.
			headers: { 'content-type': 'application/octet-stream' },
			body: file
		})
		if (!given.ok) {
			busy = ''
			return void (wrong = given.refusal.message)
		}
		// A look at it tells at once whether it can be read at all.
		const look = await ask(`/bench/imports/${given.value.id}`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ kind: 'inspect' })
		})
		busy = ''
		if (!look.ok) return void (wrong = look.refusal.message)
		await goto(`${base}/sources/${given.value.id}${again === undefined ? '' : `?into=${again}`}`)
	}

	interface Undone {
		readonly undone: number
		readonly kept: readonly Misfit[]
		readonly keptCount: number
	}

	/** What came of undoing, to be read above the list. */
	let undone = $state<(Undone & { readonly name: string }) | null>(null)
	let undoing = $state(0)

	async function undo(table: { id: number; name: string }) {
		undoing = table.id
		const answer = await send('POST', '/bench/imports', { undo: table.id })
		undoing = 0
		if (!answer.ok) return void (wrong = answer.refusal.message)
		undone = { ...answer.value, name: table.name }
		await invalidateAll()
	}

	const sayRows = (count: number) => `${count.toLocaleString('en-GB')} ${count === 1 ? 'row' : 'rows'}`

	/** A file that was chosen before this page had come to life is not forgotten. */
	function takeEarly(input: HTMLInputElement) {
		if (input.files?.[0]) void take(input.files[0])
	}

	/** Copied cells come as text with tabs between them: a file like any other. */
	function takePaste(event: ClipboardEvent) {
		event.preventDefault()
		const text = event.clipboardData?.getData('text/plain') ?? ''
		if (text.trim() === '') return void (wrong = 'There is no text to paste. Copy the cells in your spreadsheet first.')
		void take(new File([text], 'Pasted rows.tsv', { type: 'text/tab-separated-values' }))
	}

	function ondrop(event: DragEvent) {
		event.preventDefault()
		over = false
		void take(event.dataTransfer?.files[0])
	}
</script>

<div class="page">
	<h1>Sources</h1>
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div
		class="drop"
		class:over
		{ondrop}
		ondragover={(event) => {
			event.preventDefault()
			over = true
		}}
		ondragleave={() => (over = false)}
	>
		<p><strong>{busy ? `Reading ${busy}…` : 'Drop a file here'}</strong></p>
		<p class="quiet">
			CSV, XLSX, ODS, JSON or SQLite. You see what was read, and settle what is unclear, before anything is brought in.
		</p>
		<label class="btn main">
			Choose a file
			<input
				class="visually-hidden"
				type="file"
				accept={ACCEPTED}
				disabled={busy !== ''}
				onchange={(event) => take(event.currentTarget.files?.[0])}
				use:takeEarly
			/>
		</label>
		<label class="paste">
			<span class="quiet">or paste rows that you copied from a spreadsheet</span>
			<textarea class="field" rows="2" placeholder="Paste here" value="" onpaste={takePaste}></textarea>
		</label>
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	</div>
	<h2>Brought in</h2>
	{#if undone}
		<div class="undone" role="status">
			<p>
				<strong
					>{undone.name}: {sayRows(undone.undone)} put back as {undone.undone === 1 ? 'it was' : 'they were'}.</strong
				>
			</p>
			{#if undone.keptCount > 0}
				<p>
					{sayRows(undone.keptCount)}
					{undone.keptCount === 1 ? 'stays' : 'stay'} as now, changed since by somebody, or needed elsewhere:
				</p>
				<ul>
					{#each undone.kept as row, i (i)}<li>{row.label}: {row.message}</li>{/each}
				</ul>
				{#if undone.keptCount > undone.kept.length}
					<p class="quiet">and {(undone.keptCount - undone.kept.length).toLocaleString('en-GB')} more</p>
				{/if}
			{/if}
		</div>
	{/if}
	{#if sources.length === 0}
		<p class="quiet">Nothing yet. A table made from a file is listed here.</p>
	{:else}
		<table class="ruled">
			<thead><tr><th>File</th><th>Table</th><th class="num">Rows now</th><th>When</th><td></td></tr></thead>
			<tbody>
				{#each sources as table (table.id)}
					<tr>
						<td
							><strong>{table.source?.file}</strong>{#if table.source?.sheet}<span class="sheet quiet"
									>· {table.source.sheet}</span
								>{/if}</td
						>
						<td>{table.name}</td>
						<td class="num">{showCount(table.rows)}</td>
						<td class="quiet">{table.source ? showMoment(table.source.at) : ''}</td>
						<td class="ways">
							{#if table.undoable}
								<button class="btn" type="button" disabled={undoing !== 0} onclick={() => undo(table)}>
									{undoing === table.id ? 'Putting back…' : 'Put the rows back'}
								</button>
							{/if}
							<label class="btn">
								Bring in again
								<input
									class="visually-hidden"
									type="file"
									accept={ACCEPTED}
									disabled={busy !== ''}
									onchange={(event) => take(event.currentTarget.files?.[0], table.id)}
								/>
							</label>
							<a class="btn" href="{base}/tables?table={table.id}">Open the table</a>
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
</div>

<style>
	.page {
		padding: 1.2rem 1.5rem;
		display: grid;
		gap: 1rem;
		align-content: start;
		max-width: 64rem;
	}
	.drop {
		border: 2px dashed var(--zinc-5);
		border-radius: 3px;
		background: var(--chalk);
		padding: 2rem;
		display: grid;
		gap: 0.7rem;
		justify-items: start;
	}
	.drop.over {
		border-color: var(--pitch);
		background: var(--marigold-wash);
	}
	.paste {
		display: grid;
		gap: 0.3rem;
		width: min(26rem, 100%);
	}
	.undone {
		border-left: 4px solid var(--bottle);
		background: var(--bottle-wash);
		padding: 0.5rem 0.9rem;
	}
	.undone ul {
		margin: 0.3rem 0 0;
		padding-left: 1.2rem;
	}
	.sheet {
		margin-left: 0.4rem;
	}
	.ways {
		white-space: nowrap;
		text-align: right;
	}
	.ways .btn:focus-within,
	.drop:focus-within .btn {
		outline: 3px solid var(--marigold);
	}
</style>
