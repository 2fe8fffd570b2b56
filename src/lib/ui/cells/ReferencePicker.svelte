<script lang="ts">
	/** Chooses a row of another table by typing the start of its name; only rows that this person sees are offered. */
	import { onMount } from 'svelte'
	import type { Option } from '$lib/core/requests/rows.ts'
	import type { CellDraft } from './cell-draft.ts'

	type Props = {
		id: string
		table: number
		draft: CellDraft
		invalid: boolean
		/** Words that stand in it until something is typed. */
		sample?: string
		options: (table: number, starts: string) => Promise<readonly Option[]>
		onchange: (draft: CellDraft) => void
	}

	let { id, table, draft, invalid, sample = '', options, onchange }: Props = $props()

	let open = $state(false)
	let found = $state.raw<readonly Option[]>([])
	let at = $state(-1)
	let asked = 0

	let box: HTMLInputElement

	// Somebody may have tapped it before the page had come to life.
	onMount(() => {
		if (document.activeElement === box) void look(draft.id ? '' : draft.text)
	})

	async function look(starts: string) {
		const mine = ++asked
		const rows = await options(table, starts)
		// An answer that was overtaken by further typing is of no use.
		if (mine !== asked) return
		found = rows
		at = -1
		open = true
	}

	function choose(row: { id: string; label: string }) {
		onchange({ text: row.label, id: row.id })
		open = false
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
			event.preventDefault()
			if (!open) return void look(draft.id ? '' : draft.text)
			at = (at + (event.key === 'ArrowDown' ? 1 : -1) + found.length) % Math.max(1, found.length)
		} else if (event.key === 'Enter' && open) {
			const row = found[at]
			if (!row) return
			event.preventDefault()
			choose(row)
		} else if (event.key === 'Escape' && open) {
			event.stopPropagation()
			open = false
		}
	}
</script>

<div class="picker">
	<input
		{id}
		bind:this={box}
		class="field"
		role="combobox"
		aria-expanded={open}
		aria-controls="{id}-list"
		aria-autocomplete="list"
		aria-invalid={invalid}
		aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
		autocomplete="off"
		placeholder={sample || 'Type its name'}
		value={draft.text}
		oninput={(event) => {
			onchange({ text: event.currentTarget.value })
			void look(event.currentTarget.value)
		}}
		onfocus={() => void look(draft.id ? '' : draft.text)}
		onblur={() => setTimeout(() => (open = false), 150)}
		{onkeydown}
	/>
	{#if open}
		<ul id="{id}-list" role="listbox">
			{#each found as row, i (row.id)}
				<li id="{id}-{i}" role="option" aria-selected={i === at} class:on={i === at} onpointerdown={() => choose(row)}>
					{row.label}
				</li>
			{:else}
				<li class="none">Nothing here begins like that.</li>
			{/each}
		</ul>
	{/if}
</div>

<style>
	.picker {
		position: relative;
	}
	ul {
		position: absolute;
		z-index: 20;
		left: 0;
		right: 0;
		max-height: 16rem;
		overflow: auto;
		margin: 2px 0 0;
		padding: 0;
		list-style: none;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 8px 24px rgb(0 0 0 / 18%);
	}
	li {
		padding: 0.6rem 0.7rem;
		cursor: pointer;
	}
	li.on,
	li:hover {
		background: var(--marigold-wash);
	}
	.none {
		color: var(--zinc-5);
		cursor: default;
	}
</style>
