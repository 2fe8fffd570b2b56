<script lang="ts">
	/** What can be done on one row of a list: one thing at once, several behind one key. */
	import type { RowAction, ScreenPath } from '$lib/core/requests/screens.ts'
	import { pressOf } from './several-rows.svelte.ts'
	import { giveOnScreen } from '../give-on-screen.ts'
	import { usePressNote } from '../press-note.svelte.ts'

	type Props = {
		actions: readonly RowAction[]
		row: string
		name: string
		path: ScreenPath
		base: string
		from: string
	}

	let { actions, row, name, path, base, from }: Props = $props()

	/** Where there is room: set amounts, and what is the only thing that can be done. */
	const beside = $derived(
		actions.length === 1 ? actions : actions.filter(({ tally, puts }) => tally !== undefined || puts)
	)
	let isOpen = $state(false)
	let busy = $state(false)
	const note = usePressNote()

	async function press(action: RowAction) {
		busy = true
		isOpen = false
		if (action.gives) await give(action)
		else await note.press(path, pressOf(action, row), `${action.label}, ${name}`)
		busy = false
	}

	async function give({ id, opens, gives }: RowAction) {
		const to = opens === undefined ? undefined : `${base}/${opens}`
		const wrong = await giveOnScreen(path, { line: id, row, to, more: gives?.takesRow ? { row, from } : undefined })
		if (wrong !== undefined) note.say(wrong)
	}
</script>

{#snippet act(action: RowAction)}
	{#if action.opens !== undefined && !action.gives}
		<a class="btn" href="{base}/{action.opens}?row={row}&from={from}">{action.label}</a>
	{:else}
		<button class="btn" disabled={busy} aria-label="{action.label}: {name}" onclick={() => press(action)}
			>{busy && action.tally === undefined ? 'Working…' : action.label}</button
		>
	{/if}
{/snippet}

<div class="actions">
	{#each beside as action (action.id + (action.tally ?? ''))}<span class="wide">{@render act(action)}</span>{/each}
	<span class:narrow={beside.length === actions.length}>
		<button class="btn" aria-expanded={isOpen} aria-label="Do something with {name}" onclick={() => (isOpen = !isOpen)}
			>Do</button
		>
	</span>
</div>
{#if isOpen}<div class="open">
		{#each actions as action (action.id + (action.tally ?? ''))}<span class:small={beside.includes(action)}
				>{@render act(action)}</span
			>{/each}
	</div>{/if}

<style>
	.actions {
		flex: none;
		display: flex;
		align-items: center;
		gap: 0.5rem;
		padding-right: 1.2rem;
	}
	.btn {
		min-height: 48px;
	}
	.actions .btn {
		border-color: var(--zinc-3);
	}
	.narrow {
		display: none;
	}
	/* Where there is little room the row keeps its words, and what can be done opens under it. */
	@container list (max-width: 560px) {
		.narrow {
			display: block;
		}
		.wide {
			display: none;
		}
	}
	/* What stands beside the row already. */
	.small {
		display: none;
	}
	@container list (max-width: 560px) {
		.small {
			display: block;
		}
	}
	.open {
		flex-basis: 100%;
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin: 0;
		padding: 0 1.2rem 0.8rem;
	}
</style>
