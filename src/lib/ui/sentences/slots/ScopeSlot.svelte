<script lang="ts">
	/** Which columns a line is about: all, some, or all but some. */
	import type { ColumnScope } from '$lib/core/access/types.ts'
	import Choices from './Choices.svelte'
	import ColumnsEditor from './ColumnsEditor.svelte'
	import type { SlotProps } from './slot-props.ts'

	let { value, vocabulary, table, onchange }: SlotProps<ColumnScope> = $props()

	const scope = $derived<ColumnScope>(value ?? { kind: 'all' })
	const chosen = $derived(scope.kind === 'all' ? [] : scope.columns)
	const KINDS = [
		{ value: 'all', text: 'all columns' },
		{ value: 'only', text: 'only these' },
		{ value: 'except', text: 'all but these' }
	] as const
	const scoped = (kind: ColumnScope['kind'], columns: readonly number[]): ColumnScope =>
		kind === 'all' ? { kind } : { kind, columns }
</script>

<Choices choices={KINDS} value={scope.kind} onchoose={(kind) => onchange(scoped(kind, chosen))} />
{#if scope.kind !== 'all'}
	<div class="columns">
		<ColumnsEditor {vocabulary} {table} value={chosen} onchange={(next) => onchange(scoped(scope.kind, next))} />
	</div>
{/if}

<style>
	.columns {
		margin-top: 0.6rem;
	}
</style>
