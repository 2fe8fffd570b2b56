<script lang="ts">
	/** Adds a row. What is typed is kept on this device until it has been sent; after sending the form is empty again. */
	import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { untrack } from 'svelte'
	import { goto, invalidateAll } from '$app/navigation'
	import { page } from '$app/state'
	import { draftKey, dropDraft, keepDraft, keepLast, readDraftOf, readLast } from './drafts.ts'
	import { heldIn } from '../screen-address.ts'
	import FormDone from './FormDone.svelte'
	import FormEnd from './FormEnd.svelte'
	import FormParts from './FormParts.svelte'
	import { FormState } from './form-state.svelte.ts'

	type Props = {
		line: Extract<ShownLine, { kind: 'form' }>
		path: ScreenPath
		base: string
		row: string | null
	}

	let { line, path, base, row }: Props = $props()

	const form = new FormState({ line: () => line, path: () => path, row: () => row, held: () => heldIn(page.url) })
	const place = $derived(line.isOfRow ? `${line.id} ${row}` : line.id)
	const owner = $derived(String(page.data['draftsOf']))
	const keptUnder = $derived(draftKey(owner, path, place))
	/** What it asks, in one text: it is read again with the page, mostly as it was. */
	const shape = $derived(JSON.stringify(line.pages))
	let kept = $state(false)
	/** Whether it was sent, and only what it says then is shown. */
	let isDone = $state(false)
	let begun: { key: string; asks: string } | undefined
	let root: HTMLFormElement

	// Takes up what was typed before a reload; the device's own store lies outside Svelte. For another row it begins anew.
	$effect(() => {
		const key = keptUnder
		const asks = shape
		untrack(() => {
			if (begun && begun.key !== key) form.start({})
			// Its builder changed it meanwhile: what it begins with now holds for who has typed nothing.
			else if (begun && begun.asks !== asks) form.askAnew()
			begun = { key, asks }
			void takeUp(key)
		})
	})

	/** A device that keeps nothing still fills in forms. */
	async function takeUp(key: string) {
		const [draft, last] = await Promise.all([readDraftOf(key), readLast(owner, path, line.id)]).catch(() => [])
		// Whoever has begun to type by now goes on with that.
		if (key !== keptUnder || form.isTouched) return
		kept = draft !== undefined
		if (draft) form.takeUp(draft)
		else form.start(last ?? {})
	}

	function keep() {
		void keepDraft(keptUnder, $state.snapshot(form.kept())).catch(() => undefined)
	}

	async function startEmpty() {
		kept = false
		await dropDraft(keptUnder).catch(() => undefined)
		form.start({})
		form.said = undefined
	}

	async function submit(event: SubmitEvent) {
		event.preventDefault()
		if (!form.isLast) return turn(() => form.next())
		const sent = $state.snapshot(form.draft)
		const done = await form.submit()
		if (done === undefined) {
			keep()
			// Where somebody else was faster the row is read again.
			if (line.changes) await invalidateAll()
			return
		}
		kept = false
		isDone = line.then === 'shows only that'
		await Promise.all([dropDraft(keptUnder), keepLast(owner, path, line, sent.cells)]).catch(() => undefined)
		form.start((await readLast(owner, path, line.id).catch(() => undefined)) ?? {})
		if (line.opens) return goto(`${base}/${line.opens.opens}${line.opens.takesRow ? `?row=${done}` : ''}`)
		await invalidateAll()
		if (line.then === 'goes back' && history.length > 1) history.back()
	}

	function turn(to: () => void) {
		to()
		root.scrollIntoView({ block: 'start' })
	}
</script>

{#if isDone}<FormDone says={form.said?.text ?? ''} onagain={() => (isDone = false)} />{/if}
<form
	bind:this={root}
	hidden={isDone}
	onsubmit={submit}
	novalidate
	aria-label="{line.changes ? 'Change' : 'Add to'} {line.title}"
>
	{#if kept}<p class="kept">
			Kept from before on this device. <button type="button" class="linky" onclick={startEmpty}>Start empty</button>
		</p>{/if}
	{#if line.pages.length > 1}
		<div class="progress">
			<p class="at">
				{#if form.page?.title}<b>{form.page.title}</b>{/if}
				<span class="quiet">page {form.pageAt + 1} of {line.pages.length}</span>
			</p>
			<progress max={line.pages.length} value={form.pageAt + 1} aria-label="Pages filled in"></progress>
		</div>
	{/if}
	{#if form.page}<FormParts {form} parts={form.page.parts} {base} onchange={keep} />{/if}
	<FormEnd {form} onback={() => turn(() => form.back())} />
</form>

<style>
	form {
		display: grid;
		gap: 1rem;
		padding: 0.8rem 1.2rem 1.5rem;
		max-width: 40rem;
		scroll-margin-top: 4rem;
	}
	form[hidden] {
		display: none;
	}
	.kept {
		background: var(--sea-wash);
		color: var(--sea);
		padding: 0.5rem 0.8rem;
	}
	.linky {
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		text-decoration: underline;
	}
	.at {
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		font: 650 1.05rem var(--head);
	}
	.at .quiet {
		font: 500 0.9rem var(--body, inherit);
	}
	progress {
		display: block;
		width: 100%;
		height: 6px;
		margin-top: 0.35rem;
		border: 0;
		background: var(--zinc-2);
		accent-color: var(--marigold);
	}
	progress::-webkit-progress-bar {
		background: var(--zinc-2);
	}
	progress::-webkit-progress-value {
		background: var(--marigold);
	}
</style>
