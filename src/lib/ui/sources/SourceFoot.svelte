<script lang="ts">
	/** Under a file that comes in: how far it is, what came of it, and what can be done next. */
	import { countOf } from '$lib/core/text/count.ts'
	import './flowbite.css'
	import Progressbar from 'flowbite-svelte/Progressbar.svelte'
	import type { GivenSource } from './given-source.svelte.ts'
	import { showFigure } from '../count.ts'

	type Props = {
		source: GivenSource
		app: number
		ontakeout: () => void
		onscreens: () => void
	}

	let { source, app, ontakeout, onscreens }: Props = $props()

	const status = $derived(source.status)
	const wrong = $derived(source.wrong)
	const tableName = $derived(source.plan.tableName)

	/** What steps of the server do, as its reader would say. */
	const DOING = {
		reading: 'Reading',
		comparing: 'Comparing',
		trying: 'Trying whether every row fits',
		'bringing in': 'Bringing in',
		'taking out again': 'Taking out again'
	} as const

	const of = $derived(status.state === 'running' && status.of > 0 ? status.of : source.rowCount)
	const misfits = $derived(status.state === 'compared' ? (status.refused?.misfits ?? []) : [])
	const nothingToDo = $derived(
		status.state === 'compared' &&
			status.comparison.added + status.comparison.changed === 0 &&
			(source.plan.into?.how !== 'replace' || status.comparison.missing === 0)
	)
</script>

<footer>
	{#if status.state === 'running'}
		<div class="bar">
			<Progressbar progress={Math.round((100 * status.done) / (of || 1))} size="h-2.5" />
		</div>
		<p class="grow" role="status">
			{DOING[status.doing]}: {showFigure(status.done)} of {countOf(of, 'row')}
		</p>
		{#if status.doing !== 'taking out again'}<button class="btn" onclick={() => source.stop()}>Stop</button>{/if}
	{:else if status.state === 'done'}
		<p class="grow" role="status">
			<strong>{countOf(status.rows, 'row')} {status.rows === 1 ? 'is' : 'are'} in {tableName}.</strong>
			{#if status.unreadCount > 0}{countOf(status.unreadCount, 'cell')} could not be read and {status.unreadCount === 1
					? 'is'
					: 'are'} blank: {status.unread
					.slice(0, 5)
					.map((cell) => `row ${cell.row} ${cell.column} "${cell.text}"`)
					.join(', ')}.{:else}Every cell was read.{/if}
			{#if wrong}<span class="says-wrong">{wrong}</span>{/if}
		</p>
		<button class="btn" onclick={ontakeout}>Take it out again</button>
		<a class="btn" href="/bench/{app}/tables?table={status.table}">Open the table</a>
		<button class="btn main" onclick={onscreens}>Make screens from it</button>
	{:else if status.state === 'merged'}
		<p class="grow" role="status">
			<strong
				>{tableName}: {showFigure(status.added)} added, {showFigure(status.changed)} changed,
				{showFigure(status.removed)} taken out.</strong
			>
			{#if status.misfitCount > 0}
				{showFigure(status.misfitCount)} did not fit: {status.misfits
					.slice(0, 3)
					.map(({ label, message }) => `${label} (${message})`)
					.join(', ')}{status.misfitCount > 3 ? ' and more' : ''}.
			{/if}
		</p>
		<a class="btn main" href="/bench/{app}/tables?table={status.table}">Open the table</a>
	{:else if status.state === 'compared'}
		<div class="grow" role="status">
			{#if wrong}
				<p class="says-wrong">{wrong}</p>
				{#each misfits.slice(0, 4) as misfit, i (i)}<p><strong>{misfit.label}</strong>: {misfit.message}</p>{/each}
				{#if misfits.length > 4}<p class="quiet">and {misfits.length - 4} more</p>{/if}
			{:else}<p>Nothing is in yet.</p>{/if}
		</div>
		<button class="btn" onclick={() => source.back()}>Back to the file</button>
		{#if misfits.length > 0}
			<button class="btn main" onclick={() => source.apply(true)}>Bring in those that fit</button>
		{:else}
			<button class="btn main" disabled={nothingToDo} onclick={() => source.apply(false)}
				>{nothingToDo ? 'Nothing to bring in' : `Bring it into ${tableName}`}</button
			>
		{/if}
	{:else}
		<p class="grow" class:says-wrong={wrong !== ''} role="status">
			{wrong || 'Nothing is brought in yet. The file is not changed.'}
		</p>
		<a class="btn" href="/bench/{app}/sources">Back</a>
		<button class="btn main" disabled={source.included.length === 0} onclick={() => source.start()}
			>{source.into ? `Compare with ${source.into.name}` : `Bring in ${countOf(source.rowCount, 'row')}`}</button
		>
	{/if}
</footer>

<style>
	footer {
		display: flex;
		min-height: 3.6rem;
		box-sizing: border-box;
		align-items: center;
		gap: 0.8rem;
		padding: 0.7rem 1.3rem;
		border-top: 1px solid var(--zinc-3);
	}
	.grow {
		flex: 1;
	}
	.bar {
		width: 14rem;
	}
	.bar :global(> div > div) {
		background: var(--marigold);
	}
</style>
