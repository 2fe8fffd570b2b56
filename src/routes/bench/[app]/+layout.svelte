<script lang="ts">
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import { isTyping } from '$lib/ui/typing.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import { DraftState, provideDraft } from '$lib/ui/bench/draft.svelte.ts'
	import UnplacedEdits from '$lib/ui/bench/UnplacedEdits.svelte'

	let { data, children } = $props()

	// The draft lives as long as the Bench is open on this app; the layout is made anew for another one.
	// svelte-ignore state_referenced_locally
	const draft = new DraftState(data.draft.id, data.draft)
	provideDraft(draft)

	const tables = $derived(data.bench.tables.filter((table) => table.owned))
	const bays = $derived([
		{ path: 'sources', name: 'Sources', holds: String(tables.filter((table) => table.source).length) },
		{ path: 'tables', name: 'Tables', holds: String(data.bench.tables.length) },
		{ path: 'access', name: 'Access', holds: `${data.bench.vocabulary.roles.length} roles` },
		{ path: 'screens', name: 'Screens', holds: String(draft.document.screens.length) },
		{ path: 'routines', name: 'Routines', holds: String(draft.document.routines.length) },
		{ path: 'sign-offs', name: 'Sign-offs', holds: String(draft.document.signoffs.length) },
		{ path: 'release', name: 'Release', holds: data.draft.live === null ? 'none' : `no. ${data.draft.live}` },
		{ path: 'logbook', name: 'Logbook', holds: '' }
	])
	const at = $derived(page.url.pathname.split('/')[3] ?? '')

	let afterG = false

	function onkeydown(event: KeyboardEvent) {
		const typing = isTyping(event)
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !typing) {
			event.preventDefault()
			if (event.shiftKey) draft.redo()
			else draft.undo()
			return
		}
		if (typing || event.ctrlKey || event.metaKey || event.altKey) return
		const bay = afterG ? bays[Number(event.key) - 1] : undefined
		if (bay) void goto(`/bench/${draft.app}/${bay.path}`)
		afterG = event.key === 'g'
	}
</script>

<!-- The browser asks whether to leave while something is still on its way. -->
<svelte:window
	{onkeydown}
	onbeforeunload={(event) => draft.isUnsaved && event.preventDefault()}
	onfocus={() => void draft.lookAgain()}
/>
<svelte:head><title>{bays.find((bay) => bay.path === at)?.name ?? 'Bench'} · {draft.document.name}</title></svelte:head>

<div class="bench">
	<PageHeader title={draft.document.name} workspace={data.workspaceName} user={data.user} waiting={data.waiting}>
		<button class="undo" onclick={() => draft.undo()} disabled={!draft.canUndo}>Undo</button>
		{#if draft.canRedo}<button class="undo" onclick={() => draft.redo()}>Redo</button>{/if}
		<span class="state" role="status"
			>{draft.saving
				? 'Saving…'
				: draft.wrong
					? 'Not saved'
					: draft.ahead
						? 'Draft ahead of what staff use'
						: `Release ${data.draft.live} live`}</span
		>
		<a class="btn marigold" href="/bench/{draft.app}/release">Check and release</a>
		{#snippet below()}
			<nav aria-label="Bays">
				{#each bays as bay, i (bay.path)}
					<a
						href="/bench/{draft.app}/{bay.path}"
						class:on={bay.path === at}
						aria-current={bay.path === at ? 'page' : undefined}
					>
						<span class="no">{i + 1}</span>{bay.name}<span class="holds">{bay.holds}</span>
					</a>
				{/each}
			</nav>
		{/snippet}
	</PageHeader>
	{#if draft.wrong}
		<p class="wrong" role="alert">
			{draft.wrong} <button class="btn" onclick={() => location.reload()}>Load again</button>
		</p>
	{/if}
	<UnplacedEdits {draft} names={data.bench.vocabulary} />
	<main class="bay">{@render children()}</main>
</div>

<style>
	.bench {
		min-height: 100dvh;
		display: flex;
		flex-direction: column;
	}
	nav {
		display: flex;
		gap: 3px;
		padding: 0 0.9rem;
		overflow-x: auto;
	}
	nav a {
		display: flex;
		align-items: baseline;
		gap: 0.5rem;
		padding: 0.5rem 0.8rem;
		background: rgb(255 255 255 / 8%);
		color: var(--page-header-text);
		font-family: var(--head);
		font-stretch: 92%;
		font-weight: 600;
		text-decoration: none;
		border-radius: 3px 3px 0 0;
		border-top: 4px solid transparent;
		white-space: nowrap;
	}
	nav a.on {
		background: var(--paper);
		color: var(--pitch);
		border-top-color: var(--marigold);
	}
	.no,
	.holds {
		font-size: 0.8rem;
		color: var(--page-header-quiet);
	}
	a.on .no,
	a.on .holds {
		color: var(--zinc-5);
	}
	.state {
		color: var(--page-header-quiet);
	}
	.undo {
		border: 1px solid rgb(255 255 255 / 30%);
		border-radius: 3px;
		background: none;
		color: var(--page-header-text);
		font: 600 0.85rem var(--head);
		padding: 0.3rem 0.7rem;
	}
	.undo:disabled {
		color: var(--page-header-quiet);
		opacity: 0.7;
	}
	.wrong {
		background: var(--oxide-wash);
		color: var(--oxide);
		padding: 0.5rem 1.2rem;
	}
	.bay {
		flex: 1;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
</style>
