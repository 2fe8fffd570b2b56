<script lang="ts">
	/** What a form says once it is sent, alone on the screen: read by somebody who stands before it. */
	type Props = { says: string; onagain: () => void }

	let { says, onagain }: Props = $props()
</script>

<div class="done" role="status">
	<p>{says}</p>
	<button class="btn main" onclick={onagain}>Start again</button>
</div>

<style>
	.done {
		display: grid;
		gap: 1.4rem;
		justify-items: start;
		padding: 1.5rem 1.2rem;
	}
	.done p {
		font: 700 1.7rem/1.25 var(--head);
		max-width: 40rem;
	}
	.done .btn {
		min-height: 56px;
		padding: 0.5rem 2rem;
	}
</style>
