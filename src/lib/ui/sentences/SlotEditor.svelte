<script lang="ts">
	/** What opens under a slot: the control that fits what may stand in it. */
	import { VERBS } from '$lib/core/access/types.ts'
	import { orderWords } from '$lib/core/sentence/print.ts'
	import type { LineValue, NamedColumn, Slot, Vocabulary } from '$lib/core/sentence/types.ts'
	import ColumnsEditor from './ColumnsEditor.svelte'
	import ChildrenEditor from './ChildrenEditor.svelte'
	import FormulaEditor from '../formula/FormulaEditor.svelte'

	type Props = {
		slot: Slot
		value: unknown
		line: LineValue
		vocabulary: Vocabulary
		table: number | undefined
		onchange: (value: unknown) => void
		onclose: () => void
	}

	let { slot, value, line, vocabulary, table, onchange, onclose }: Props = $props()

	const id = $props.id()
	const ofTable = $derived<readonly NamedColumn[]>(vocabulary.tables.find((each) => each.id === table)?.columns ?? [])
	const columns = $derived(ofTable.filter((column) => !column.condition))
	const scope = $derived((value ?? { kind: 'all' }) as { kind: 'all' | 'only' | 'except'; columns?: number[] })
	const sort = $derived(value as { column: number; descending: boolean } | null)
	const order = $derived(orderWords(columns.find((column) => column.id === sort?.column)))
	const does = $derived(value as { kind: 'open' | 'run'; screen?: string; routine?: string } | null)

	function choose(next: unknown) {
		onchange(next)
		onclose()
	}

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

<p class="title" id="{id}-title">{slot.title}</p>
{#if slot.type === 'text'}
	<input
		class="field"
		use:focus
		aria-labelledby="{id}-title"
		value={String(value ?? '')}
		onchange={(event) => onchange(event.currentTarget.value)}
		onkeydown={(event) => event.key === 'Enter' && choose(event.currentTarget.value)}
	/>
{:else if slot.type === 'long text'}
	<textarea
		class="field"
		rows="5"
		use:focus
		aria-labelledby="{id}-title"
		value={String(value ?? '')}
		onchange={(event) => onchange(event.currentTarget.value)}></textarea>
	<p class="quiet">Put formulas in braces, for instance {'{Code}'}. Each is shown as the reader may see it.</p>
{:else if slot.type === 'table'}
	<div class="choices">
		{#each vocabulary.tables as each (each.id)}
			<button class:on={each.id === value} onclick={() => choose(each.id)}>{each.name}</button>
		{/each}
	</div>
{:else if slot.type === 'role'}
	<div class="choices">
		{#each vocabulary.roles as role (role.id)}
			<button class:on={role.id === value} onclick={() => choose(role.id)}>{role.name}</button>
		{/each}
	</div>
{:else if slot.type === 'screen'}
	<div class="choices">
		{#if slot.empty}<button class:on={value === null} onclick={() => choose(null)}>{slot.empty}</button>{/if}
		{#each vocabulary.screens as screen (screen.id)}
			<button class:on={screen.id === value} onclick={() => choose(screen.id)}>{screen.title}</button>
		{/each}
	</div>
{:else if slot.type === 'column'}
	<div class="choices">
		{#each columns as column (column.id)}
			<button class:on={column.id === value} onclick={() => choose(column.id)}>{column.name}</button>
		{/each}
	</div>
{:else if slot.type === 'columns'}
	<ColumnsEditor {columns} value={(value ?? []) as number[]} {onchange} />
{:else if slot.type === 'sort'}
	<div class="choices">
		<button class:on={sort === null} onclick={() => choose(null)}>{slot.empty}</button>
		{#each columns as column (column.id)}
			<button
				class:on={sort?.column === column.id}
				onclick={() => onchange({ column: column.id, descending: sort?.descending ?? false })}>{column.name}</button
			>
		{/each}
	</div>
	{#if sort}
		<div class="choices two">
			<button class:on={!sort.descending} onclick={() => onchange({ ...sort, descending: false })}>{order[0]}</button>
			<button class:on={sort.descending} onclick={() => onchange({ ...sort, descending: true })}>{order[1]}</button>
		</div>
	{/if}
{:else if slot.type === 'verbs'}
	{#each VERBS as verb (verb)}
		{@const on = ((value ?? []) as string[]).includes(verb)}
		<label class="tick">
			<input
				type="checkbox"
				checked={on}
				onchange={() =>
					onchange(VERBS.filter((each) => (each === verb ? !on : ((value ?? []) as string[]).includes(each))))}
			/>
			{verb}
		</label>
	{/each}
{:else if slot.type === 'column scope'}
	<div class="choices two">
		<button class:on={scope.kind === 'all'} onclick={() => onchange({ kind: 'all' })}>all columns</button>
		<button class:on={scope.kind === 'only'} onclick={() => onchange({ kind: 'only', columns: scope.columns ?? [] })}
			>only these</button
		>
		<button
			class:on={scope.kind === 'except'}
			onclick={() => onchange({ kind: 'except', columns: scope.columns ?? [] })}>all but these</button
		>
	</div>
	{#if scope.kind !== 'all'}
		<ColumnsEditor
			{columns}
			value={scope.columns ?? []}
			onchange={(next) => onchange({ kind: scope.kind, columns: next })}
		/>
	{/if}
{:else if slot.type === 'does'}
	<div class="choices">
		{#each vocabulary.screens as screen (screen.id)}
			<button class:on={does?.screen === screen.id} onclick={() => choose({ kind: 'open', screen: screen.id })}
				>opens {screen.title}</button
			>
		{/each}
		{#each vocabulary.routines as routine (routine.id)}
			<button class:on={does?.routine === routine.id} onclick={() => choose({ kind: 'run', routine: routine.id })}
				>runs {routine.name}</button
			>
		{/each}
	</div>
{:else if slot.type === 'when'}
	<div class="choices two">
		{#each ['added', 'changed', 'added or changed'] as when (when)}
			<button class:on={value === when} onclick={() => choose(when)}>{when}</button>
		{/each}
	</div>
{:else if slot.type === 'children'}
	<ChildrenEditor {vocabulary} {table} value={(value ?? []) as never} {onchange} />
{:else}
	<FormulaEditor
		value={String(value ?? '')}
		{table}
		condition={slot.type === 'condition'}
		me={slot.key !== 'decider' && !slot.key.startsWith('start.') && slot.type !== 'person'}
		empty={slot.empty}
		{onchange}
	/>
{/if}
<p class="end">
	<span class="quiet">{line['id'] ? 'Kept as you go.' : ''}</span><button class="btn" onclick={onclose}>Done</button>
</p>

<style>
	.title {
		font: 650 0.95rem var(--head);
		margin-bottom: 0.5rem;
		color: var(--pitch);
	}
	.title::first-letter {
		text-transform: uppercase;
	}
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 0.35rem;
	}
	.two {
		margin-top: 0.5rem;
	}
	.choices button {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
		padding: 0.3rem 0.6rem;
	}
	.choices button:hover {
		border-color: var(--pitch);
	}
	.choices button.on {
		background: var(--marigold-wash);
		border-color: var(--pitch);
		font-weight: 700;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		padding: 0.2rem 0;
		align-items: center;
	}
	.end {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-top: 0.8rem;
	}
</style>
