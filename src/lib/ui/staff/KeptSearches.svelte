<script lang="ts">
	/** Searches on this screen that somebody keeps under names of their own, and the way to keep the one that stands there. */
	import { goto, invalidateAll } from '$app/navigation'
	import { page } from '$app/state'
	import { allLines } from '$lib/core/app/lines/tree.ts'
	import type { KeptSearch, ScreenPath, ShownLine, ShownScreen } from '$lib/core/requests/screens.ts'
	import { doOnScreen } from '../lines/do-on-screen.ts'
	import { searchAt, searchIn } from '../lines/screen-address.ts'

	type Props = { screen: NonNullable<ShownScreen['screen']>; kept: readonly KeptSearch[]; path: ScreenPath }

	let { screen, kept, path }: Props = $props()

	const id = $props.id()
	let isNaming = $state(false)
	let name = $state('')
	let wrong = $state('')

	const now = $derived(searchIn(page.url))
	const isSearching = $derived(now.query !== '' || now.words !== '')
	/** Where nothing is looked for, nothing is kept. */
	const isSearched = $derived(allLines<ShownLine>(screen.lines).some(isLookedThrough))
	const current = $derived(kept.find((each) => each.query === now.query && each.words === now.words))

	function isLookedThrough(line: ShownLine): boolean {
		if (line.kind === 'list') return line.finds || line.filters.length > 0
		return line.kind === 'search' || line.kind === 'choose'
	}

	async function keep(event: SubmitEvent) {
		event.preventDefault()
		const answer = await doOnScreen(path, { kind: 'keep search', name: name.trim(), ...now })
		wrong = answer.ok ? '' : answer.refusal.message
		if (!answer.ok) return
		isNaming = false
		name = ''
		await invalidateAll()
	}

	async function forget({ id: kept }: KeptSearch) {
		const answer = await doOnScreen(path, { kind: 'forget search', id: kept })
		wrong = answer.ok ? '' : answer.refusal.message
		if (answer.ok) await invalidateAll()
	}
</script>

{#if isSearched && (kept.length > 0 || isSearching)}
	<div class="kept" role="group" aria-label="Kept searches">
		{#each kept as each (each.id)}
			<span class="one" class:on={each.id === current?.id}>
				<button
					class="name"
					aria-pressed={each.id === current?.id}
					onclick={() => goto(searchAt(path, each), { noScroll: true })}>{each.name}</button
				><button class="off" aria-label="Keep {each.name} no longer" onclick={() => forget(each)}>✕</button>
			</span>
		{/each}
		{#if isNaming}
			<form onsubmit={keep}>
				<label class="visually-hidden" for="{id}-name">What this search is called</label>
				<!-- svelte-ignore a11y_autofocus -->
				<input id="{id}-name" class="field" maxlength="60" required autofocus placeholder="Called…" bind:value={name} />
				<button class="btn main">Keep it</button>
				<button type="button" class="btn plain" onclick={() => (isNaming = false)}>Leave it</button>
			</form>
		{:else if isSearching && !current}
			<button class="btn plain" onclick={() => (isNaming = true)}>Keep this search…</button>
		{/if}
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	</div>
{/if}

<style>
	.kept {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
		padding: 0.6rem 1.2rem 0;
	}
	.one {
		display: inline-flex;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--paper);
	}
	.one.on {
		border-color: var(--pitch);
		box-shadow: inset 0 -4px 0 var(--marigold);
	}
	.name,
	.off {
		min-height: 44px;
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
	}
	.name {
		padding: 0 0.2rem 0 0.8rem;
		font-weight: 600;
	}
	.off {
		min-width: 40px;
		color: var(--zinc-7);
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
	}
	.field {
		width: 12rem;
		min-height: 44px;
	}
</style>
