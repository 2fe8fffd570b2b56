<script lang="ts">
	import { enhance } from '$app/forms'

	/** Where the app is found: as a link, as a code to scan, and how it is put on the face of a phone. */
	type Props = {
		address: string
		/** The code as SVG. */
		code: string
		/** Its word, blank where it has none. */
		word: string
		origin: string
		/** What was wrong with the word that was typed. */
		wrong: string
	}

	let { address, code, word, origin, wrong }: Props = $props()

	let said = $state('')

	async function copy() {
		await navigator.clipboard.writeText(address).then(
			() => (said = 'Copied.'),
			() => (said = 'The browser did not let it be copied. Mark it and copy it by hand.')
		)
	}
</script>

<section>
	<h2>Its address</h2>
	<p>
		<a href={address}>{address}</a> <button class="btn" onclick={copy}>Copy</button> <span role="status">{said}</span>
	</p>
	<form
		method="POST"
		action="?/word"
		use:enhance={() =>
			({ update }) =>
				update({ reset: false })}
	>
		<label for="app-word">A word of its own, that can be typed: {origin}/to/</label>
		<input
			id="app-word"
			class="field"
			name="word"
			value={word}
			maxlength="40"
			autocapitalize="off"
			spellcheck="false"
			placeholder="harbour-office"
		/>
		<button class="btn">Take it</button>
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	</form>
	<div class="code">
		<img
			src="data:image/svg+xml,{encodeURIComponent(code)}"
			alt="The address as a code to scan"
			width="160"
			height="160"
		/>
		<p class="quiet">
			Scan it with a phone’s camera, or hang it up where the work is. To have the app on the face of a phone: open it
			there, and choose “Add to home screen” in the browser’s own menu. Whoever is not signed in is asked to first; the
			address names nothing but the app.
		</p>
	</div>
</section>

<style>
	section {
		display: grid;
		gap: 0.5rem;
	}
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem;
	}
	.field {
		width: 14rem;
	}
	.code {
		display: flex;
		gap: 1.2rem;
		align-items: start;
		max-width: 46rem;
	}
	img {
		flex: none;
		background: #fff;
		border: 1px solid var(--zinc-3);
	}
</style>
