<script lang="ts">
	/** Everything that leaves the workspace, held back or let go. */
	import { enhance } from '$app/forms'
	import type { Outgoing } from '$lib/core/requests/notices.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { showMoment } from '../dates.ts'

	let { outgoing }: { outgoing: Outgoing } = $props()

	const isHeld = $derived(outgoing.heldSince !== null)
</script>

<section aria-labelledby="leaves">
	<h2 id="leaves">What leaves</h2>
	{#if outgoing.heldSince !== null}
		<p class="held" role="status">
			Held back since {showMoment(outgoing.heldSince)}. {outgoing.waiting === 0
				? 'Nothing waits.'
				: `${countOf(outgoing.waiting, 'message')} ${outgoing.waiting === 1 ? 'waits' : 'wait'}.`}
		</p>
		<p class="quiet">
			What people are told stands under their Notices meanwhile. All that waits leaves once it is let go.
		</p>
	{:else}
		<p class="quiet">
			Mail leaves as it comes. Hold it back where a routine writes too much, or to somebody it should not: invitations
			and new passwords wait then too.
		</p>
	{/if}
	<form method="POST" action="?/outgoing" use:enhance>
		<button class="btn" name="hold" value={isHeld ? 'no' : 'yes'}
			>{isHeld ? 'Let it leave again' : 'Hold all of it back'}</button
		>
	</form>
</section>

<style>
	section {
		display: grid;
		justify-items: start;
		gap: 0.5rem;
		margin-top: 2rem;
		padding-top: 1rem;
		border-top: 1px solid var(--zinc-3);
	}
	h2 {
		margin: 0;
	}
	.held {
		padding: 0.5rem 0.8rem;
		background: var(--marigold-wash);
		border-left: 4px solid var(--marigold);
		font-weight: 600;
	}
</style>
