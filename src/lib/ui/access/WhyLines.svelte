<script lang="ts">
	/** Each line of a table held against one person and one row, with the values that decided. */
	import type { AccessReasons } from '$lib/core/requests/access.ts'

	type Props = { lines: AccessReasons['lines'] }

	let { lines }: Props = $props()
</script>

<table class="ruled">
	<thead
		><tr><th>Line</th><th>Role</th><th>Does this row fit?</th><th>What was compared</th><th>It lets them</th></tr
		></thead
	>
	<tbody>
		{#each lines as line (line.id)}
			{@const counts = line.isHeld && line.fits}
			<tr class:counts>
				<td class="mono">{line.number}</td>
				<td
					>{line.role}
					<span class="stamp {line.isHeld ? 'good' : ''}">{line.isHeld ? 'held' : 'not held'}</span></td
				>
				<td><span class="stamp {line.fits ? 'good' : 'bad'}">{line.fits ? 'fits' : 'does not fit'}</span></td>
				<td>
					{#each line.values as value (value.name)}<span class="value"
							>{value.name}: <strong>{value.text ?? 'kept from you'}</strong></span
						>{:else}every row{/each}
				</td>
				<td class:quiet={!counts}
					>{counts ? line.verbs.join(', ') : 'nothing'}{counts && line.leavesOut.length > 0
						? `, without ${line.leavesOut.join(', ')}`
						: ''}</td
				>
			</tr>
		{:else}
			<tr><td colspan="5">No line speaks of this table.</td></tr>
		{/each}
	</tbody>
</table>

<style>
	.value {
		display: block;
	}
	.counts {
		background: var(--selected);
	}
</style>
