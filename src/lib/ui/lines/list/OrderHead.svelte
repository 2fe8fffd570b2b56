<script lang="ts">
	/** The heading of a column: a press orders the rows by it, another the other way, a third as the list has them. */
	import { goto } from '$app/navigation'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isNumeric } from '../../cells/controls.ts'
	import { withOrder } from '../screen-address.ts'
	import type { ListRows } from './list-rows.svelte.ts'
	import { addressNow } from '../address-now.ts'

	type Props = { column: ShownColumn; rows: ListRows; line: string; width: 'wide' | 'narrow' | undefined }

	let { column, rows, line, width }: Props = $props()

	const order = $derived(rows.sort?.column !== column.id ? 'none' : rows.sort.descending ? 'descending' : 'ascending')
</script>

<th class={width} class:num={isNumeric(column)} aria-sort={order}>
	<button onclick={() => goto(withOrder(addressNow(), line, column.id), { keepFocus: true, noScroll: true })}
		>{column.name}{#if order !== 'none'}<span aria-hidden="true">{order === 'ascending' ? ' ▲' : ' ▼'}</span
			>{/if}</button
	>
</th>

<style>
	th {
		vertical-align: middle;
		padding: 0.2rem 0.7rem;
	}
	th:first-child {
		padding-left: 1.2rem;
	}
	/* Of the room that is left over this one takes most; a narrow one none. */
	.wide {
		width: 40%;
	}
	@media (min-width: 900px) {
		.wide {
			min-width: 18rem;
		}
	}
	.narrow {
		width: 1%;
	}
	.num {
		text-align: right;
	}
	button {
		min-height: 44px;
		padding: 0;
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		font-weight: 650;
		white-space: nowrap;
	}
</style>
