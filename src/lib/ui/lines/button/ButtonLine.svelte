<script lang="ts">
	import { page } from '$app/state'
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import { allLines } from '$lib/core/app/lines/tree.ts'
	import type { FileFormat } from '$lib/core/exchange/file-formats.ts'
	import Icon from '../../Icon.svelte'
	import { giveOnScreen } from '../give-on-screen.ts'
	import { usePressNote } from '../press-note.svelte.ts'
	import { hasWords, listQuery } from '../screen-address.ts'
	import { useShownNow } from '../shown-now.svelte.ts'

	type Props = {
		line: Extract<ShownLine, { kind: 'button' }>
		path: ScreenPath
		base: AppBase
		row: string | null
		from: string
	}

	let { line, path, base, row, from }: Props = $props()

	let busy = $state(false)
	const note = usePressNote()
	const now = useShownNow()

	/** Words that are looked for stand in no address that a log may hold. */
	const NO_FILE = 'Take the words out of the search box first: a file holds the list without them.'
	const { does } = $derived(line)
	/** Where it leads, for those that are links. */
	const address = $derived.by(() => {
		if (does.kind === 'open')
			return `${base}/${does.opens}${does.takesRow && row !== null ? `?row=${row}&from=${from}` : ''}`
		if (does.kind === 'link') return does.address
		return does.kind === 'start over' ? base : undefined
	})
	/** Pages of others open beside the app, which stays. */
	const isOutside = $derived(does.kind === 'link' && /^https?:/i.test(does.address))

	async function press() {
		if (does.kind === 'export') return takeFile(does.format)
		if (does.kind === 'print') return window.print()
		if (does.kind === 'copy link') return copy()
		if (does.kind === 'give') return give(does)
		if (row === null) return
		busy = true
		await note.press(path, { kind: does.kind === 'put' ? 'put' : 'press', line: line.id, row }, line.label)
		busy = false
	}

	/** Of the first list of the screen, as it stands now. */
	function takeFile(format: FileFormat) {
		const list = allLines<ShownLine>(now.main.screen?.lines ?? []).find(({ kind }) => kind === 'list')
		if (!list) return note.say('There is no list here for you to take away.')
		if (!path.startsWith('/app/')) return note.say('The Lookout shows a copy of the data, which gives no files away.')
		if (hasWords(page.url)) return note.say(NO_FILE)
		const from = `${path}/export?line=${list.id}&format=${encodeURIComponent(format)}${listQuery(page.url)}`
		// As a link that is followed: the answer is a file, and the page stays.
		window.location.assign(from)
	}

	async function copy() {
		const isDone = await navigator.clipboard.writeText(page.url.href).then(
			() => true,
			() => false
		)
		note.say(isDone ? 'The link is copied.' : `This browser does not copy. The link is ${page.url.href}`, !isDone)
	}

	async function give({ opens, takesRow }: Extract<typeof does, { kind: 'give' }>) {
		busy = true
		const more = takesRow && row !== null ? { row, from } : undefined
		const wrong = await giveOnScreen(path, { line: line.id, to: opens === null ? undefined : `${base}/${opens}`, more })
		if (wrong !== undefined) note.say(wrong)
		busy = false
	}
</script>

<div class="place" class:tile={line.picture !== null}>
	{#if address !== undefined}
		<a
			class="btn main"
			href={address}
			target={isOutside ? '_blank' : undefined}
			rel={isOutside ? 'noreferrer' : undefined}
			data-sveltekit-reload={does.kind === 'start over' ? '' : undefined}
			>{@render words()}{#if isOutside && does.kind === 'link'}<span class="host">{new URL(does.address).host}</span
				>{/if}</a
		>
	{:else}
		<button class="btn main" onclick={press} disabled={busy}
			>{#if busy}Working…{:else}{@render words()}{/if}</button
		>
	{/if}
</div>

{#snippet words()}{#if line.picture}<img src={appFileAddress(line.picture.sha, base)} alt="" />{/if}{#if line.icon}<Icon
			name={line.icon}
		/>{/if}{line.label}{/snippet}

<style>
	.place {
		padding: 0.8rem 1.2rem;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.8rem;
	}
	.btn {
		display: inline-flex;
		align-items: center;
		justify-content: center;
		gap: 0.5rem;
		min-height: 48px;
		padding: 0.5rem 1.4rem;
		font-size: 1rem;
	}
	/* With a picture over its words. */
	.tile .btn {
		flex-direction: column;
		width: 11rem;
		height: 100%;
		padding: 0 0 0.6rem;
		overflow: hidden;
		background: var(--paper);
		color: var(--pitch);
		border: 1px solid var(--pitch);
	}
	.tile img {
		width: 100%;
		height: 7rem;
		object-fit: cover;
		border-bottom: 1px solid var(--zinc-3);
	}
	.host {
		font-weight: 400;
		font-size: 0.88rem;
		opacity: 0.85;
	}
	@media (max-width: 640px) {
		.btn {
			width: 100%;
		}
	}
</style>
