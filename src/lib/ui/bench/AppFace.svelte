<script lang="ts">
	/** What the app is called, what it is for, and how it looks; a part of the draft as its lines are. */
	import { appIcon } from '$lib/core/app/app-icon.ts'
	import { COLOURS, type AppDocument } from '$lib/core/app/document.ts'
	import type { DraftState } from './draft.svelte.ts'

	let { draft }: { draft: DraftState } = $props()

	const app = $derived(draft.document)
	const change = (face: Partial<Pick<AppDocument, 'name' | 'about' | 'colour'>>) =>
		draft.change({ ...draft.document, ...face })
</script>

<section>
	<h2>Name and look</h2>
	<div class="face">
		<img src="data:image/svg+xml,{encodeURIComponent(appIcon(app))}" alt="" width="72" height="72" />
		<div class="entries">
			<label for="app-name">Name</label>
			<input
				id="app-name"
				class="field"
				maxlength="200"
				value={app.name}
				onchange={({ currentTarget: box }) => {
					// An app has a name; an empty one stays what it was.
					if (box.value.trim() === '') box.value = app.name
					else change({ name: box.value.trim() })
				}}
			/>
			<label for="app-about">What it is for</label>
			<input
				id="app-about"
				class="field"
				maxlength="200"
				value={app.about}
				onchange={(event) => change({ about: event.currentTarget.value.trim() })}
			/>
			<fieldset>
				<legend>Its colour</legend>
				{#each COLOURS as colour (colour)}
					<label
						><input
							type="radio"
							name="app-colour"
							value={colour}
							checked={app.colour === colour}
							onchange={() => change({ colour })}
						/><span class="paint" style:background="var(--{colour})"></span>{colour}</label
					>
				{/each}
			</fieldset>
		</div>
	</div>
</section>

<style>
	section {
		display: grid;
		gap: 0.5rem;
	}
	.face {
		display: flex;
		align-items: start;
		gap: 1.2rem;
	}
	img {
		flex: none;
		border-radius: 3px;
	}
	.entries {
		flex: 1;
		display: grid;
		gap: 0.3rem;
		max-width: 34rem;
	}
	.entries > label {
		font-weight: 600;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1rem;
		margin: 0.4rem 0 0;
		padding: 0;
		border: 0;
	}
	legend {
		padding: 0;
		font-weight: 600;
	}
	fieldset label {
		display: inline-flex;
		align-items: center;
		gap: 0.35rem;
		min-height: 2rem;
	}
	.paint {
		width: 1.2rem;
		height: 1.2rem;
		border-radius: 3px;
	}
</style>
