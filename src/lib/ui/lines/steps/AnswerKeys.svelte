<script lang="ts">
	/** The answers to one question as large keys, numbered for a keyboard. */
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import type { AppBase, ShownAnswer } from '$lib/core/requests/screens.ts'
	import Mark from '../list/Mark.svelte'
	import type { StepsState } from './steps-state.svelte.ts'

	type Props = { steps: StepsState; answers: readonly ShownAnswer[]; base: AppBase }

	let { steps, answers, base }: Props = $props()

	const hasPictures = $derived(answers.some(({ picture }) => picture !== null))
	/** More than fit side by side stand in rows of about as many; on a tablet upright that is sooner. */
	const inRows = (most: number) => Math.ceil(answers.length / Math.ceil(answers.length / most))
</script>

<ol class:pictures={hasPictures} style:--wide={inRows(5)} style:--upright={inRows(4)}>
	{#each answers as answer, i (i)}
		<li>
			<button
				class={answer.tone ?? ''}
				aria-pressed={steps.isChosen(answer)}
				disabled={steps.isBusy}
				onclick={() => steps.answer(answer)}
			>
				{#if answer.picture}<img src={appFileAddress(answer.picture.sha, base)} alt="" />{/if}
				<span class="no" aria-hidden="true">{i < 9 ? i + 1 : ''}</span>
				<span class="label">{answer.label}</span>
				{#if answer.tone}<Mark tone={answer.tone} />{/if}
			</button>
		</li>
	{/each}
</ol>

<style>
	ol {
		display: grid;
		grid-template-columns: repeat(var(--wide), minmax(0, 1fr));
		gap: 0.8rem;
		margin: 0;
		padding: 0;
		list-style: none;
	}
	button {
		display: grid;
		grid-template-columns: auto minmax(0, 1fr) auto;
		align-items: center;
		gap: 0.7rem;
		width: 100%;
		height: 100%;
		min-height: clamp(112px, 17vh, 180px);
		padding: 0.8rem 1rem;
		border: 2px solid var(--pitch);
		border-top-width: 8px;
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
		font: 700 1.25rem var(--head);
		text-align: left;
		overflow-wrap: anywhere;
	}
	button:active,
	button[aria-pressed='true'] {
		background: var(--marigold-wash);
	}
	button[aria-pressed='true'] {
		outline: 3px solid var(--marigold);
	}
	.past {
		border-top-color: var(--oxide);
	}
	.look {
		border-top-color: var(--rope);
	}
	.sound,
	.finished {
		border-top-color: var(--bottle);
	}
	.later {
		border-top-color: var(--sea);
	}
	img {
		grid-column: 1 / -1;
		width: 100%;
		height: 9rem;
		object-fit: cover;
	}
	.no {
		font: 600 0.95rem var(--mono);
		color: var(--zinc-7);
	}
	@media (max-width: 1000px) {
		ol {
			grid-template-columns: repeat(var(--upright), minmax(0, 1fr));
		}
	}
	@media (max-width: 640px) {
		ol {
			grid-template-columns: 1fr;
		}
		button {
			min-height: 72px;
		}
		ol.pictures {
			grid-template-columns: 1fr 1fr;
		}
		img {
			height: 6rem;
		}
	}
</style>
