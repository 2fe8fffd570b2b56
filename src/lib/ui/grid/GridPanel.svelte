<script lang="ts">
	/** Opens over a cell whose value is not typed: a file, a drawing, several choices. Nothing is put in before it is said so. */
	import { holdsFile } from '$lib/core/capture/attachment.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from '../cells/cell-draft.ts'
	import FileField from '../cells/FileField.svelte'
	import SeveralChoices from '../cells/SeveralChoices.svelte'

	type Props = {
		column: ShownColumn
		draft: CellDraft
		/** The address of the picture that lies there now. */
		there: string | undefined
		onchange: (draft: CellDraft, done: boolean) => void
	}

	let { column, draft, there, onchange }: Props = $props()

	const id = $props.id()
	let began = $state.raw<CellDraft | undefined>()

	const standing = $derived((began === undefined || began.file === draft.file) && draft.unsent === undefined)

	$effect(() => {
		began ??= draft
	})

	/** Above everything, beside its cell, and wholly within the window. */
	function lay(panel: HTMLElement) {
		const cell = panel.parentElement?.getBoundingClientRect()
		panel.showPopover()
		const place = () => {
			const { offsetWidth, offsetHeight } = panel
			panel.style.left = `${Math.max(8, Math.min(cell?.left ?? 0, innerWidth - offsetWidth - 8))}px`
			panel.style.top = `${Math.max(8, Math.min(cell?.top ?? 0, innerHeight - offsetHeight - 8))}px`
		}
		const watch = new ResizeObserver(place)
		watch.observe(panel)
		place()
		const first = panel.querySelector<HTMLElement>('input, button')
		first?.focus()
		return { destroy: () => watch.disconnect() }
	}

	/** Keys pressed inside belong to what is inside; only Escape leaves. */
	function onkeydown(event: KeyboardEvent) {
		if (event.key !== 'Escape') event.stopPropagation()
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="panel"
	popover="manual"
	use:lay
	role="group"
	aria-label={column.name}
	{onkeydown}
	onmousedown={(event) => event.stopPropagation()}
>
	{#if holdsFile(column)}
		<FileField {id} {column} {draft} there={standing ? there : undefined} onchange={(next) => onchange(next, false)} />
		{#if there && standing}<a href={there} rel="external" target="_blank">Open it larger</a>{/if}
	{:else}
		<SeveralChoices {column} {draft} onchange={(next) => onchange(next, false)} />
	{/if}
	<p class="end"><button type="button" class="btn main" onclick={() => onchange(draft, true)}>Put it in</button></p>
</div>

<style>
	.panel {
		position: fixed;
		inset: auto;
		margin: 0;
		color: var(--pitch);
		gap: 0.6rem;
		user-select: text;
		width: 24rem;
		padding: 0.8rem;
		background: var(--paper);
		border: 2px solid var(--marigold);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		white-space: normal;
		line-height: 1.4;
		cursor: default;
		text-align: left;
	}
	.panel:popover-open {
		display: grid;
	}
	.end {
		margin: 0;
	}
</style>
