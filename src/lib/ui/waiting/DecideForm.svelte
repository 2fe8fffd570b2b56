<script lang="ts">
	/** What may be done with a request, with a word to the other side. */
	import { enhance } from '$app/forms'
	import type { CaseSheet } from '$lib/core/requests/cases.ts'

	type Props = {
		sheet: CaseSheet
		/** What was typed already. */
		comment: string
	}

	let { sheet, comment }: Props = $props()

	const WORDS = { approve: 'Approve', decline: 'Decline', withdraw: 'Withdraw it' } as const
	const other = $derived(sheet.moves.includes('approve') ? sheet.askedBy : sheet.decider)
</script>

<form method="POST" use:enhance>
	<input type="hidden" name="id" value={sheet.id} />
	<input type="hidden" name="fingerprint" value={sheet.fingerprint} />
	<label class="visually-hidden" for="comment">Comment</label>
	<textarea id="comment" name="comment" class="field" rows="3" placeholder="Say something to {other}…"
		>{comment}</textarea
	>
	<p class="moves">
		{#each sheet.moves as move (move)}<button class="btn" class:main={move === 'approve'} name="move" value={move}
				>{WORDS[move]}</button
			>{/each}
	</p>
</form>

<style>
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
	@media (max-width: 640px) {
		.moves .btn {
			flex: 1;
		}
	}
</style>
