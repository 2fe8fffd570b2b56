<script lang="ts">
	/** How far the sign-off of a row has come. */
	import type { CaseOfRow } from '$lib/core/requests/cases.ts'
	import { showMoment } from '../../dates.ts'

	type Props = { signoff: CaseOfRow }

	let { signoff }: Props = $props()

	const tone = $derived(signoff.state === 'approved' ? 'good' : signoff.state === 'declined' ? 'bad' : 'look')
</script>

<p class="decision">
	<span class="stamp {tone}">{signoff.state === 'waiting' ? `waits on ${signoff.decider}` : signoff.state}</span>
	{#if signoff.decidedAt}<span class="quiet">by {signoff.decider}, {showMoment(signoff.decidedAt)}</span>{/if}
	{#if signoff.comment}<q>{signoff.comment}</q>{/if}
	<span class="quiet">Closed to changes.</span>
	{#if signoff.link}<a href={signoff.link}>See the request</a>{/if}
</p>

<style>
	.decision {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.5rem 0.8rem;
	}
</style>
