<script lang="ts">
	/** A film: nothing of it is fetched before it is pressed; one that stands on the web opens there, its host named. */
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import type { AppBase, ShownLine } from '$lib/core/requests/screens.ts'
	import Icon from '../../Icon.svelte'

	type Props = { line: Extract<ShownLine, { kind: 'video' }>; base: AppBase }

	let { line, base }: Props = $props()

	let isPlaying = $state(false)
	let isBroken = $state(false)
</script>

<div class="film">
	{#if line.film === null}
		<a class="key" href={line.address} target="_blank" rel="noreferrer"
			><Icon name="play" /><span class="title">{line.title}</span><span class="where"
				>opens {new URL(line.address).host} in a new tab</span
			></a
		>
	{:else if !isPlaying}
		<button class="key" onclick={() => (isPlaying = true)}
			><Icon name="play" /><span class="title">{line.title}</span><span class="where">plays here</span></button
		>
	{:else if isBroken}
		<p class="says-wrong" role="alert">
			This film does not play here. Ask whoever looks after this app for another copy.
		</p>
	{:else}
		<!-- svelte-ignore a11y_media_has_caption -->
		<video
			src={appFileAddress(line.film, base)}
			controls
			autoplay
			playsinline
			aria-label={line.title}
			onerror={() => (isBroken = true)}
		></video>
	{/if}
</div>

<style>
	.film {
		padding: 0.6rem 1.2rem;
		max-width: 46rem;
	}
	.key {
		display: grid;
		grid-template-columns: auto 1fr auto;
		align-items: center;
		gap: 0.8rem;
		width: 100%;
		min-height: 64px;
		padding: 0.6rem 1rem;
		border: 1px solid var(--pitch);
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
		text-align: left;
		text-decoration: none;
	}
	.title {
		font-weight: 650;
	}
	.where {
		color: var(--zinc-7);
		font-size: 0.92rem;
	}
	video {
		display: block;
		width: 100%;
		max-height: 70vh;
		background: #000;
	}
	@media (max-width: 640px) {
		.key {
			grid-template-columns: auto 1fr;
		}
		.where {
			grid-column: 2;
		}
	}
</style>
