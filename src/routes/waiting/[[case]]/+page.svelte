<script lang="ts">
	import { enhance } from '$app/forms'
	import { cellKey } from '$lib/core/query/wire.ts'
	import { isNumeric, showCell } from '$lib/ui/cells/show-cell.ts'
	import { showAge, showMoment } from '$lib/ui/dates.ts'
	import AtTheDoor from '$lib/ui/people/AtTheDoor.svelte'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'

	let { data, form } = $props()

	type Tab = 'waiting' | 'decided' | 'asked'
	let chosen = $state<Tab | undefined>()

	const { lists, sheet } = $derived(data)
	const tab = $derived(
		chosen ??
			(sheet && !lists.waiting.some((each) => each.id === sheet.id)
				? lists.decided.some((each) => each.id === sheet.id)
					? 'decided'
					: 'asked'
				: 'waiting')
	)
	const shown = $derived(lists[tab])
	const result = $derived(form as { message?: string; comment?: string; decided?: string } | null)

	const TABS = [
		['waiting', 'Waiting'],
		['decided', 'Decided by me'],
		['asked', 'Asked by me']
	] as const
	const WORDS = { approve: 'Approve', decline: 'Decline', withdraw: 'Withdraw it' } as const
	const tone = (state: string) =>
		state === 'approved' ? 'good' : state === 'declined' ? 'bad' : state === 'waiting' ? 'look' : ''
	const EMPTY: Record<Tab, string> = {
		waiting: 'Nothing waits on you.',
		decided: 'You have decided nothing yet.',
		asked: 'You have asked for nothing yet.'
	}
</script>

<svelte:head><title>Waiting on me</title></svelte:head>

<PageHeader title="Waiting on me" workspace={data.workspaceName} user={data.user} waiting={data.waiting} />
<main class="page" class:open={data.asked}>
	<h1 class="visually-hidden">Waiting on me</h1>
	<aside>
		<AtTheDoor requests={data.accessRequests} />
		<div class="tabs" role="tablist">
			{#each TABS as [key, words] (key)}
				<button role="tab" aria-selected={tab === key} class:on={tab === key} onclick={() => (chosen = key)}
					>{words} <span class="quiet">{lists[key].length}</span></button
				>
			{/each}
		</div>
		{#each shown as item (item.id)}
			<a class="item" class:on={item.id === sheet?.id} href="/waiting/{item.id}">
				<span>
					<strong>{item.label}</strong>
					<span class="quiet">{item.name} · from {item.askedBy}</span>
				</span>
				{#if item.state === 'waiting'}<span class="stamp info">{showAge(item.askedAt)}</span>{:else}<span
						class="stamp {tone(item.state)}">{item.state}</span
					>{/if}
			</a>
		{:else}
			<p class="none">{EMPTY[tab]}</p>
		{/each}
	</aside>
	<section class="sheet">
		{#if sheet}
			<a class="back" href="/waiting">‹ Back to the list</a>
			<p class="quiet">{sheet.name} · asked by {sheet.askedBy}, {showMoment(sheet.askedAt)}</p>
			<h2 class="label">{sheet.label}</h2>
			<div class="stage {tone(sheet.state)}">
				<strong
					>{sheet.state === 'waiting'
						? `Waits on ${sheet.decider}`
						: `${sheet.state} ${sheet.state === 'withdrawn' ? '' : `by ${sheet.decider}`}`}</strong
				>
				<span>{sheet.decidedAt === null ? `since ${showMoment(sheet.askedAt)}` : showMoment(sheet.decidedAt)}</span>
			</div>
			{#if sheet.row}
				<dl>
					{#each sheet.columns.slice(1) as column (column.id)}
						{@const cell = sheet.row.cells[cellKey(column.id)]}
						{#if cell !== undefined}<dt>{column.name}</dt>
							<dd>{showCell(column, cell) || '–'}</dd>{/if}
					{/each}
				</dl>
			{:else}
				<p>The row itself is not for you to see; what was decided is.</p>
			{/if}
			{#each sheet.children.filter((child) => child.rows.length > 0) as child (child.name)}
				<table class="ruled">
					<thead
						><tr
							>{#each child.columns as column (column.id)}<th class:num={isNumeric(column)}>{column.name}</th
								>{/each}</tr
						></thead
					>
					<tbody>
						{#each child.rows as row (row.id)}
							<tr
								>{#each child.columns as column (column.id)}<td class:num={isNumeric(column)}
										>{showCell(column, row.cells[cellKey(column.id)])}</td
									>{/each}</tr
							>
						{/each}
					</tbody>
				</table>
			{/each}
			{#if result?.message}<p class="says-wrong" role="alert">{result.message}</p>{/if}
			{#if sheet.moves.length > 0}
				{#key sheet.id}
					<form method="POST" use:enhance>
						<input type="hidden" name="id" value={sheet.id} />
						<input type="hidden" name="fingerprint" value={sheet.fingerprint} />
						<label class="visually-hidden" for="comment">Comment</label>
						<textarea
							id="comment"
							name="comment"
							class="field"
							rows="3"
							placeholder="Say something to {sheet.moves.includes('approve') ? sheet.askedBy : sheet.decider}…"
							>{result?.comment ?? ''}</textarea
						>
						<p class="moves">
							{#each sheet.moves as move (move)}<button
									class="btn"
									class:main={move === 'approve'}
									name="move"
									value={move}>{WORDS[move]}</button
								>{/each}
						</p>
					</form>
				{/key}
			{/if}
		{:else}
			<p class="none">
				{data.accessRequests.length > 0 ? 'Somebody waits on the doorstep.' : 'Nothing waits on you.'} What you have decided,
				and what you have asked for, stands on the left.
			</p>
		{/if}
	</section>
	{#if sheet}
		<section class="happened">
			<h2>What has happened</h2>
			<ol>
				{#each sheet.events as event (event.at + event.what)}
					<li>
						<strong>{event.who}</strong>
						{event.what}
						{#if event.comment}<q>{event.comment}</q>{/if}
						<span class="quiet">{showMoment(event.at)}</span>
					</li>
				{/each}
			</ol>
			<p class="quiet">
				From the asking on, the request is closed to changes. Every entry is sealed to the one before it.
			</p>
		</section>
	{/if}
</main>

<style>
	.page {
		display: grid;
		grid-template-columns: minmax(20rem, 25rem) minmax(0, 1fr) 19rem;
		min-height: calc(100dvh - 46px);
	}
	aside {
		background: var(--limewash);
		border-right: 1px solid var(--zinc-3);
	}
	.tabs {
		display: flex;
		border-bottom: 1px solid var(--zinc-3);
	}
	.tabs button {
		flex: 1;
		border: 0;
		border-bottom: 4px solid transparent;
		background: none;
		color: var(--zinc-7);
		font: 650 0.88rem var(--head);
		padding: 0.8rem 0.3rem 0.6rem;
		min-height: 48px;
	}
	.tabs button.on {
		color: var(--pitch);
		border-bottom-color: var(--marigold);
	}
	.item {
		display: flex;
		justify-content: space-between;
		align-items: flex-start;
		gap: 0.6rem;
		padding: 0.7rem 1rem 0.7rem 0.9rem;
		border-bottom: 1px solid var(--zinc-2);
		border-left: 4px solid transparent;
		color: inherit;
		text-decoration: none;
	}
	.item .quiet {
		display: block;
		font-size: 0.9rem;
	}
	.item.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.none {
		padding: 1rem;
	}
	.label {
		font-size: 1.45rem;
	}
	.sheet {
		padding: 1.1rem 1.8rem 2rem;
		display: grid;
		gap: 0.9rem;
		align-content: start;
	}
	.stage {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1rem;
		padding: 0.6rem 0.9rem;
		border: 1px solid var(--zinc-3);
		border-top: 4px solid var(--marigold);
		background: var(--marigold-wash);
	}
	.stage strong::first-letter {
		text-transform: uppercase;
	}
	.stage.good {
		background: var(--bottle-wash);
		border-top-color: var(--bottle);
	}
	.stage.bad {
		background: var(--oxide-wash);
		border-top-color: var(--oxide);
	}
	dl {
		display: grid;
		grid-template-columns: minmax(7rem, 10rem) 1fr;
		margin: 0;
	}
	dt,
	dd {
		margin: 0;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		font-weight: 600;
		white-space: pre-line;
	}
	form {
		display: grid;
		gap: 0.7rem;
	}
	.moves {
		display: flex;
		gap: 0.6rem;
	}
	.moves .btn {
		min-height: 48px;
		padding: 0.4rem 1.4rem;
	}
	.happened {
		padding: 1.2rem 1.2rem 1rem 0;
	}
	ol {
		list-style: none;
		margin: 0.7rem 0;
		padding: 0 0 0 0.9rem;
		border-left: 2px solid var(--zinc-3);
		display: grid;
		gap: 0.8rem;
	}
	li .quiet,
	li q {
		display: block;
	}
	.back {
		display: none;
	}
	@media (max-width: 1000px) {
		.page {
			grid-template-columns: minmax(17rem, 22rem) 1fr;
		}
		.happened {
			grid-column: 2;
			padding: 0 1.8rem 2rem;
		}
	}
	@media (max-width: 640px) {
		.page {
			grid-template-columns: 1fr;
		}
		.page:not(.open) .sheet,
		.page:not(.open) .happened,
		.page.open aside {
			display: none;
		}
		.happened {
			grid-column: 1;
		}
		.back {
			display: inline;
		}
		.moves .btn {
			flex: 1;
		}
	}
</style>
