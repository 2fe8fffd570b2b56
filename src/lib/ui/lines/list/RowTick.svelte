<script lang="ts">
	/** The box of a row, which saves as it is ticked. */
	import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { usePressNote } from '../press-note.svelte.ts'

	type Props = {
		line: ShownList & { readonly id: string }
		column: ShownColumn
		row: WireRow
		name: string
		path: ScreenPath
	}

	let { line, column, row, name, path }: Props = $props()

	let busy = $state(false)
	const note = usePressNote()
	const isTicked = $derived(row.cells[cellKey(column.id)] === true)

	async function tick({ currentTarget: box }: Event & { currentTarget: HTMLInputElement }) {
		const on = box.checked
		busy = true
		const press = { kind: 'tick', line: line.id, row: row.id, on } as const
		const isDone = await note.press(path, press, `${column.name} ${on ? 'ticked' : 'cleared'}, ${name}`)
		busy = false
		// What was refused stands as it was.
		if (!isDone) box.checked = isTicked
	}
</script>

<label>
	<input type="checkbox" checked={isTicked} disabled={busy} onchange={tick} />
	<span class="visually-hidden">{column.name}: {name}</span>
</label>

<style>
	label {
		flex: none;
		display: grid;
		place-items: center;
		width: 56px;
		min-height: 48px;
	}
	input {
		width: 24px;
		height: 24px;
	}
</style>
