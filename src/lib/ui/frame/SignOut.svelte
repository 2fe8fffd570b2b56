<script lang="ts">
	/**
	 * Signs out. A device goes from hand to hand: nothing that was typed stays behind on it, and nothing is dropped without a
	 * word.
	 */
	import { page } from '$app/state'
	import { countDrafts, dropDrafts } from '../lines/form/drafts.ts'

	const owner = $derived(String(page.data['draftsOf']))
	/** How many forms stand in the way. */
	let unsent = $state(0)

	async function leave(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
		event.preventDefault()
		const form = event.currentTarget
		unsent = await countDrafts(owner).catch(() => 0)
		if (unsent === 0) await drop(form)
	}

	/** What cannot be dropped (a browser that keeps nothing) holds nobody here. */
	async function drop(form: HTMLFormElement) {
		await dropDrafts(owner).catch(() => undefined)
		form.submit()
	}

	function toFirst(button: HTMLButtonElement) {
		button.focus()
	}
</script>

<form method="POST" action="/sign-out" onsubmit={leave}><button class="out">Sign out</button></form>
{#if unsent > 0}
	<div class="unsent" role="alertdialog" aria-label="Sign out" aria-describedby="unsent-forms">
		<p id="unsent-forms">
			{unsent === 1 ? 'One form was' : `${unsent} forms were`} begun on this device and not sent. Signing out drops what you
			typed there.
		</p>
		<form
			method="POST"
			action="/sign-out"
			onsubmit={(event) => {
				event.preventDefault()
				void drop(event.currentTarget)
			}}
		>
			<button type="button" class="btn main" onclick={() => (unsent = 0)} {@attach toFirst}>Stay signed in</button>
			<button class="btn drop">Drop {unsent === 1 ? 'it' : 'them'} and sign out</button>
		</form>
	</div>
{/if}

<style>
	.out {
		border: 0;
		background: none;
		color: var(--page-header-quiet);
		text-decoration: underline;
		font: inherit;
		font-size: 0.85rem;
		padding: 0.3rem 0.2rem;
	}
	.unsent {
		position: absolute;
		right: 1rem;
		top: 3.2rem;
		z-index: 30;
		max-width: min(24rem, calc(100vw - 2rem));
		padding: 0.9rem 1rem;
		background: var(--paper);
		color: var(--pitch);
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		box-shadow: 0 6px 18px rgb(0 0 0 / 25%);
	}
	.unsent form {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin-top: 0.8rem;
	}
	.unsent .btn {
		min-height: 44px;
	}
	.drop {
		color: var(--oxide);
	}
</style>
