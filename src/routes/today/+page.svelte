<script lang="ts">
	import { enhance } from '$app/forms'
	import type { DoneToday } from '$lib/core/requests/today.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import { showTime } from '$lib/ui/dates.ts'

	let { data, form } = $props()

	const WORDS = { add: 'added', change: 'changed', remove: 'removed' } as const

	const nameOf = ({ label, table }: DoneToday) => (label === '' ? `a row of ${table}` : label)
</script>

<svelte:head><title>What I did today · {data.workspaceName}</title></svelte:head>

<PageHeader title={data.workspaceName} workspace="What I did today" user={data.user} waiting={data.waiting} />
<main>
	<h1>What I did today</h1>
	{#if form && 'message' in form}<p class="says-wrong" role="alert">{form.message}</p>{/if}
	{#if data.done.length === 0}
		<p class="quiet">
			Nothing yet. What you add, change or remove stands here until midnight, most of it with a way back.
		</p>
	{/if}
	<ol>
		{#each data.done as each (each.entry)}
			<li class:undone={each.state === 'taken back'}>
				<span class="time">{showTime(each.at)}</span>
				<div class="what">
					<p><strong>{nameOf(each)}</strong> <span class="quiet">{WORDS[each.kind]}, {each.table}</span></p>
					{#each each.cells as cell (cell.name)}
						<p class="cell">
							<span class="quiet">{cell.name}</span>
							{each.kind === 'change' ? `${cell.from || 'blank'} → ${cell.to || 'blank'}` : cell.to || cell.from}
						</p>
					{/each}
				</div>
				{#if each.state === 'taken back'}
					<span class="quiet">taken back</span>
				{:else if each.state === 'can be taken back'}
					<form method="POST" action="?/takeBack" use:enhance>
						<input type="hidden" name="entry" value={each.entry} />
						<button class="btn" aria-label="Take back: {nameOf(each)}, {WORDS[each.kind]} at {showTime(each.at)}"
							>Take back</button
						>
					</form>
				{/if}
			</li>
		{/each}
	</ol>
</main>

<style>
	main {
		max-width: 52rem;
		margin: 0 auto;
		padding: 1.2rem;
	}
	h1 {
		margin-bottom: 0.6rem;
	}
	ol {
		list-style: none;
		margin: 1rem 0 0;
		padding: 0;
	}
	ol:not(:empty) {
		border-top: 1px solid var(--zinc-2);
	}
	li {
		display: flex;
		align-items: flex-start;
		gap: 1rem;
		padding: 0.7rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	.time {
		flex: none;
		width: 3.2rem;
		padding-top: 0.1rem;
		color: var(--zinc-7);
		font: 500 0.9rem var(--mono);
	}
	.what {
		flex: 1;
		min-width: 0;
		overflow-wrap: anywhere;
	}
	.cell {
		font-size: 0.95rem;
	}
	.undone .what {
		text-decoration: line-through;
		color: var(--zinc-7);
	}
	.btn {
		min-height: 44px;
	}
</style>
