<script lang="ts">
	/** Questions at a counter, one after the other; after the last it says thanks and begins again for the next person. */
	import { onMount } from 'svelte'
	import { page } from '$app/state'
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { FormState } from '../form/form-state.svelte.ts'
	import { heldIn } from '../screen-address.ts'
	import AnswerKeys from './AnswerKeys.svelte'
	import { StepsState } from './steps-state.svelte.ts'

	type Props = { line: Extract<ShownLine, { kind: 'steps' }>; path: ScreenPath; base: AppBase; row: string | null }

	let { line, path, base, row }: Props = $props()

	/** Who has gone away half way is not waited for longer. Common practice: a minute. */
	const LEFT_AFTER_MS = 60_000

	const steps = new StepsState(
		() => line,
		new FormState({ line: () => line.form, path: () => path, row: () => row, held: () => heldIn(page.url) })
	)
	const { ask, entry } = $derived(steps)
	let heading = $state<HTMLElement>()
	const message = $derived(
		(entry && steps.form.messageAt(entry)) ?? (steps.form.said?.wrong ? steps.form.said.text : '')
	)

	// Whoever hears the page hears the next question.
	let before: string | undefined
	$effect(() => {
		const now = ask?.id
		if (before !== undefined && before !== now) heading?.focus()
		before = now
	})

	$effect(() => {
		if (steps.thanks === undefined) return
		const timer = setTimeout(() => steps.beginAgain(), line.pause * 1000)
		return () => clearTimeout(timer)
	})

	let left: ReturnType<typeof setTimeout> | undefined
	function touch() {
		clearTimeout(left)
		left = setTimeout(() => {
			if (steps.thanks === undefined) steps.beginAgain()
		}, LEFT_AFTER_MS)
	}
	$effect(() => () => clearTimeout(left))

	// What a browser can do is known only there.
	let canRead = $state(false)
	onMount(() => {
		canRead = 'speechSynthesis' in window
	})
	// Nobody hears the question of the one before.
	$effect(() => {
		void [ask?.id, steps.thanks]
		return () => 'speechSynthesis' in window && speechSynthesis.cancel()
	})

	function readAloud() {
		const words = [ask?.question, ...(ask?.answers.map(({ label }, i) => `${i + 1}: ${label}`) ?? [])]
		speechSynthesis.cancel()
		speechSynthesis.speak(new SpeechSynthesisUtterance(words.filter(Boolean).join('. ')))
	}

	function onkeydown(event: KeyboardEvent) {
		touch()
		const isTyping = event.target instanceof HTMLElement && event.target.closest('input, textarea, select')
		const answer = /^[1-9]$/.test(event.key) ? ask?.answers[Number(event.key) - 1] : undefined
		if (!isTyping && answer && steps.thanks === undefined) void steps.answer(answer)
	}
</script>

<svelte:window {onkeydown} onpointerdown={touch} />

<section class="steps" aria-label={line.form.title}>
	{#if steps.thanks !== undefined}
		<div class="thanks" role="status">
			<p>{steps.thanks}</p>
			<span class="left" style:animation-duration="{line.pause}s"></span>
		</div>
	{:else if ask && entry}
		<header>
			{#if steps.count > 1}<p class="at quiet">{steps.number} of {steps.count}</p>{/if}
			<span class="gap"></span>
			{#if canRead}<button class="btn plain" onclick={readAloud}>Read aloud</button>{/if}
		</header>
		<h2 tabindex="-1" bind:this={heading}>{ask.question}</h2>
		{#if ask.answers.length > 0}
			<AnswerKeys {steps} answers={ask.answers} {base} />
		{:else}
			{#await import('./TypedAnswer.svelte') then { default: TypedAnswer }}
				{#key ask.id}<TypedAnswer {steps} {entry} question={ask.question} {base} />{/key}
			{:catch}<p class="says-wrong" role="alert">
					This question could not be loaded: no signal. Try again later.
				</p>{/await}
		{/if}
		{#if message}<p class="says-wrong" role="alert">{message}</p>{/if}
		<footer>
			{#if steps.canGoBack}<button class="btn" onclick={() => steps.back()}>Back</button>{/if}
			<span class="gap"></span>
			{#if ask.canSkip}<button class="btn" disabled={steps.isBusy} onclick={() => steps.skip()}>Skip</button>{/if}
		</footer>
	{/if}
</section>

<style>
	.steps {
		display: grid;
		align-content: start;
		gap: 0.8rem;
		max-width: 64rem;
		min-height: 24rem;
		margin-inline: auto;
		padding: 1rem 1.4rem 1.4rem;
	}
	header,
	footer {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		min-height: 44px;
	}
	.gap {
		flex: 1;
	}
	.at {
		font-variant-numeric: tabular-nums;
	}
	h2 {
		font-size: clamp(1.6rem, 4.5vw, 2.4rem);
		line-height: 1.15;
		outline: none;
		text-wrap: balance;
	}
	footer .btn {
		min-height: 52px;
		min-width: 7rem;
		font-size: 1.1rem;
	}
	.thanks {
		display: grid;
		align-content: center;
		justify-items: center;
		gap: 1.4rem;
		min-height: 22rem;
		text-align: center;
		font: 700 clamp(1.6rem, 4.5vw, 2.4rem) var(--head);
	}
	.left {
		width: min(20rem, 80%);
		height: 6px;
		background: var(--marigold);
		transform-origin: left;
		animation: left linear forwards;
	}
	@keyframes left {
		to {
			transform: scaleX(0);
		}
	}
	@media (prefers-reduced-motion: reduce) {
		.left {
			animation: none;
		}
	}
</style>
