<script lang="ts">
	/** Finds screens, rows and places to go by a few letters; arrows choose, Enter goes there, Escape leaves. */
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import type { Found } from '$lib/core/requests/find.ts'
	import { ask } from '../send.ts'
	import { placesOf } from './places.ts'
	import { showFound, type ShownFound } from './show-found.ts'

	let { onclose }: { onclose: () => void } = $props()

	/** Letters that follow one another this fast are one question. */
	const PAUSE = 120

	let text = $state('')
	let found = $state.raw<readonly Found[]>([])
	let wrong = $state('')
	let busy = $state(false)
	let at = $state(0)
	let timer: ReturnType<typeof setTimeout> | undefined
	/** Of the last question: one that is overtaken is given up, and no longer read for. */
	let asking: AbortController | undefined

	const words = $derived(text.trim().toLocaleLowerCase())
	const user = $derived(page.data['user'] as Parameters<typeof placesOf>[0] | undefined)
	const places = $derived(user ? placesOf(user).filter(({ title }) => title.toLocaleLowerCase().includes(words)) : [])
	const shown = $derived<readonly ShownFound[]>([...found.map(showFound), ...places])

	function look() {
		clearTimeout(timer)
		at = 0
		timer = setTimeout(() => void read(), PAUSE)
	}

	async function read() {
		asking?.abort()
		const mine = (asking = new AbortController())
		busy = true
		const bench = /^\/bench\/(\d+)/.exec(page.url.pathname)?.[1]
		const from = bench === undefined ? '' : `&bench=${bench}`
		const answer = await ask(`/find?q=${encodeURIComponent(text)}${from}`, { signal: mine.signal })
		if (mine !== asking) return
		busy = false
		wrong = answer.ok ? '' : answer.refusal.message
		if (answer.ok) found = answer.value
	}

	function onkeydown(event: KeyboardEvent) {
		const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
		if (by !== 0) {
			event.preventDefault()
			at = Math.min(Math.max(at + by, 0), Math.max(shown.length - 1, 0))
		}
		const chosen = shown[at]
		// At once, where a browser would empty the box first.
		if (event.key === 'Escape') {
			event.preventDefault()
			onclose()
		}
		if (event.key === 'Enter' && chosen) {
			event.preventDefault()
			go(chosen)
		}
	}

	function go({ href }: ShownFound) {
		onclose()
		// A letter opens in what this device writes letters with.
		if (href.startsWith('mailto:')) window.location.href = href
		else void goto(href)
	}

	/** As a dialog of the browser's own: the rest of the page waits, Escape closes it, the focus goes back. */
	function openAsDialog(dialog: HTMLDialogElement) {
		dialog.showModal()
		void read()
	}
</script>

<dialog class="over" {@attach openAsDialog} {onclose} aria-label="Find anything">
	<input
		type="search"
		class="field"
		role="combobox"
		aria-label="Find screens, rows, people and places"
		aria-expanded="true"
		aria-controls="found"
		aria-activedescendant={shown.length > 0 ? `found-${at}` : undefined}
		placeholder="Find screens, rows, people and places"
		bind:value={text}
		oninput={look}
		{onkeydown}
	/>
	<ul id="found" role="listbox" aria-label="Found">
		{#each shown as each, i (each.href + each.title)}
			<!-- Keys choose among them in the box above, as a combobox is used. -->
			<!-- svelte-ignore a11y_click_events_have_key_events -->
			<li id="found-{i}" role="option" aria-selected={i === at} onclick={() => go(each)} onpointermove={() => (at = i)}>
				<strong>{each.title}</strong> <span class="quiet">{each.where}</span>
			</li>
		{/each}
	</ul>
	<p class="quiet" role="status">
		{wrong || (busy ? 'Looking…' : shown.length === 0 ? 'Nothing that you may open says that.' : '')}
	</p>
</dialog>

<style>
	dialog {
		width: min(38rem, calc(100vw - 2rem));
		max-height: min(36rem, 80vh);
		margin: 10vh auto auto;
		padding: 0.8rem;
	}
	.field {
		width: 100%;
		min-height: 48px;
		font-size: 1.1rem;
	}
	ul {
		list-style: none;
		margin: 0.5rem 0 0;
		padding: 0;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: center;
		gap: 0 1rem;
		min-height: 44px;
		padding: 0.3rem 0.8rem;
		border-bottom: 1px solid var(--zinc-2);
		cursor: pointer;
	}
	li[aria-selected='true'] {
		background: var(--marigold-wash);
		box-shadow: inset 4px 0 0 var(--marigold);
	}
	p {
		padding: 0.4rem 0.2rem 0;
	}
</style>
