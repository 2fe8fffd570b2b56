<script lang="ts">
	/** Over a page whose session ran out: signing in again, beside it, with all that was typed still there. */
	const SIZE = 'popup,width=520,height=720'

	let { name }: { name: string } = $props()

	function signIn() {
		window.open('/sign-in?then=/signed-in-again', 'tin-shed-sign-in', SIZE)
	}

	function openAsDialog(dialog: HTMLDialogElement) {
		dialog.showModal()
	}
</script>

<dialog class="over" {@attach openAsDialog} oncancel={(event) => event.preventDefault()} aria-labelledby="signed-out">
	<h2 id="signed-out">You are signed out</h2>
	<p>
		What you typed is still on this page. Sign in again{name === '' ? '' : ` as ${name}`} in the window that opens, and go
		on here; as somebody else, this page closes.
	</p>
	<p class="end">
		<button class="btn main" onclick={signIn}>Sign in again</button> <a href="/sign-in">Leave this page</a>
	</p>
</dialog>

<style>
	dialog {
		width: min(28rem, calc(100vw - 2rem));
		margin: auto;
	}
	/* It shows that all is still there, to nobody who passes by. */
	dialog::backdrop {
		backdrop-filter: blur(10px);
	}
	p {
		margin-top: 0.6rem;
	}
	.end {
		display: flex;
		align-items: center;
		gap: 1rem;
	}
	.btn {
		min-height: 48px;
	}
</style>
