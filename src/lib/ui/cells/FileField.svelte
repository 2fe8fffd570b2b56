<script lang="ts">
	/**
	 * Puts a photo, file, drawing or signature into a cell. A photo or file is given in as soon as it is chosen; where that
	 * does not work (no signal), it stays here and goes with the form.
	 */
	import { holdsFile } from '$lib/core/capture/attachment.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { onMount } from 'svelte'
	import { isAtDesk } from '../signal.ts'
	import type { CellDraft } from './cell-draft.ts'
	import DrawPad from './DrawPad.svelte'
	import { giveFile, readyPhoto, toDataAddress } from './give-file.ts'
	import { drawStandIn } from './stand-in-photo.ts'

	type Props = {
		id: string
		column: ShownColumn
		draft: CellDraft
		/** The address of the picture that lies in the cell now. */
		there?: string | undefined
		onchange: (draft: CellDraft) => void
	}

	let { id, column, draft, there, onchange }: Props = $props()

	let busy = $state(false)
	let wrong = $state('')
	let waits = $state(false)
	let standsIn = $state(false)
	onMount(() => (standsIn = isAtDesk()))

	const drawn = $derived(column.type === 'ink' || column.type === 'signature')
	const filled = $derived(draft.file !== undefined || draft.unsent !== undefined)
	const picture = $derived(draft.small ?? (draft.unsent?.startsWith('data:image') ? draft.unsent : undefined) ?? there)
	// Drawing goes on where it began; only what came from before is shown as a picture.
	let drawing = $state(false)

	async function choose(event: Event & { currentTarget: HTMLInputElement }) {
		const input = event.currentTarget
		const [file] = input.files ?? []
		input.value = ''
		if (!file) return
		wrong = ''
		waits = false
		busy = true
		await give(file).finally(() => (busy = false))
	}

	/** At a desk there is no camera: a picture that says so goes the same way as a photo. */
	async function standIn() {
		busy = true
		const file = await drawStandIn(column.name)
		await give(file).finally(() => (busy = false))
	}

	async function give(file: File) {
		const photo = column.type === 'photo' ? await readyPhoto(file) : undefined
		if (column.type === 'photo' && !photo)
			return void (wrong = `${file.name} cannot be shown as a picture. Choose a JPEG or PNG.`)
		const { name, body } = photo ?? { name: file.name, body: file }
		const small = photo ? { small: photo.small } : {}
		const answer = await giveFile(column.id, name, body)
		if (answer.ok) return onchange({ text: answer.value.file.name, file: answer.value.token, ...small })
		if (answer.refusal.code !== 'no signal') return void (wrong = answer.refusal.message)
		waits = true
		onchange({ text: name, unsent: await toDataAddress(body), ...small })
	}

	function draw(address: string | undefined) {
		drawing = true
		onchange(address === undefined ? { text: '' } : { text: `${column.name.toLowerCase()}.png`, unsent: address })
	}

	function clear() {
		drawing = false
		waits = false
		onchange({ text: '' })
	}
</script>

{#if drawn && (drawing || !filled)}
	<DrawPad {id} label={column.name} height={column.type === 'ink' ? 260 : 150} onchange={draw} />
{:else}
	{#if filled}
		<div class="there">
			{#if picture}<img src={picture} alt="What is in {column.name}" />{/if}
			<span class="words">{draft.text}</span>
			<button type="button" class="btn" onclick={clear}>{drawn ? 'Draw anew' : 'Take it out'}</button>
		</div>
	{/if}
	{#if !drawn && holdsFile(column)}
		<div class="choose">
			<label class="btn" for={id}
				>{column.type === 'photo'
					? filled
						? 'Take another photo'
						: 'Take or choose a photo'
					: filled
						? 'Choose another file'
						: 'Choose a file'}</label
			>
			<input
				{id}
				type="file"
				accept={column.type === 'photo' ? 'image/*' : undefined}
				onchange={choose}
				disabled={busy}
			/>
			{#if standsIn && column.type === 'photo'}<button type="button" class="btn" disabled={busy} onclick={standIn}
					>A stand-in for the camera</button
				>{/if}
			{#if busy}<span role="status" class="quiet">Sending the file…</span>{/if}
		</div>
	{/if}
{/if}
{#if waits}<p role="status" class="waits">No signal: it is kept on this page and goes with the form.</p>{/if}
{#if wrong}<p role="alert" class="says-wrong">{wrong}</p>{/if}

<style>
	.there {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem;
	}
	img {
		max-width: 12rem;
		max-height: 9rem;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: #fff;
	}
	.words {
		overflow-wrap: anywhere;
	}
	.choose {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		position: relative;
	}
	.choose label {
		display: inline-flex;
		align-items: center;
		min-height: 48px;
		padding: 0.4rem 1.1rem;
		cursor: pointer;
	}
	/* The input itself takes the focus; its label shows it. */
	.choose input {
		position: absolute;
		width: 1px;
		height: 1px;
		opacity: 0;
	}
	.choose:focus-within label {
		outline: 3px solid var(--marigold);
		outline-offset: 1px;
	}
	.there .btn {
		min-height: 48px;
	}
	.waits {
		background: var(--rope-wash);
		color: var(--rope);
		padding: 0.4rem 0.7rem;
	}
</style>
