<script lang="ts">
	/** What the app is called, what it is for, and how it looks; a part of the draft as its lines are. */
	import { appIcon } from '$lib/core/app/app-icon.ts'
	import { COLOURS, type AppDocument } from '$lib/core/app/document.ts'
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import { giveAppFile } from '../give-app-file.ts'
	import type { DraftState } from './draft.svelte.ts'

	let { draft }: { draft: DraftState } = $props()

	const app = $derived(draft.document)
	const change = (face: Partial<Pick<AppDocument, 'name' | 'about' | 'colour' | 'icon'>>) =>
		draft.change({ ...draft.document, ...face })

	let wrong = $state('')
	/** The paint that goes with the picture that was just taken in. */
	let proposed = $state<AppDocument['colour'] | null>(null)

	async function choose(input: HTMLInputElement) {
		const [file] = input.files ?? []
		if (!file) return
		wrong = ''
		const taken = await giveAppFile('picture', file)
		input.value = ''
		if (!taken.ok) return (wrong = taken.refusal.message)
		change({ icon: taken.value.file })
		proposed = taken.value.colour
	}
</script>

<section>
	<h2>Name and look</h2>
	<div class="face">
		{#if app.icon}<img class="own" src={appFileAddress(app.icon.sha)} alt="" style:border-color="var(--{app.colour})" />
		{:else}<img src="data:image/svg+xml,{encodeURIComponent(appIcon(app))}" alt="" width="72" height="72" />{/if}
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
			{#if proposed !== null && proposed !== app.colour}
				<p>
					<button class="btn" onclick={() => proposed && change({ colour: proposed })}
						>Take {proposed}, which goes with the picture</button
					>
				</p>
			{/if}
			<label for="app-icon">Its picture, in place of its letters</label>
			<input
				id="app-icon"
				class="field"
				type="file"
				accept="image/*"
				onchange={(event) => choose(event.currentTarget)}
			/>
			{#if app.icon}<p>
					<button class="btn plain" onclick={() => change({ icon: null })}>Take the picture off</button>
				</p>{/if}
			{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
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
	/* As a phone shows it: on its paint. */
	.own {
		width: 72px;
		height: 72px;
		border: 7px solid;
		object-fit: cover;
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
