<script lang="ts">
	/** Asks whoever looks after people to be let into an app; what comes of it is told by a message. */
	import { send } from '../send.ts'

	type Props = {
		app: number
		/** The screen that was wanted; blank for the app itself. */
		screen: string
	}

	let { app, screen }: Props = $props()

	let words = $state('')
	let said = $state<{ text: string; wrong: boolean } | undefined>()

	async function ask(event: SubmitEvent) {
		event.preventDefault()
		const answer = await send('POST', '/waiting/app', { app, screen, words })
		said = answer.ok
			? { text: 'Asked. You are told as soon as somebody has decided; nothing more is to be done here.', wrong: false }
			: { text: answer.refusal.message, wrong: true }
	}
</script>

{#if said && !said.wrong}
	<p role="status"><span class="stamp good">asked</span> {said.text}</p>
{:else}
	<form onsubmit={ask}>
		<label for="words">Why you need it, if you like to say so</label>
		<textarea id="words" class="field" rows="3" maxlength="1000" bind:value={words}></textarea>
		<p><button class="btn main">Ask to be let in</button></p>
		{#if said}<p class="says-wrong" role="alert">{said.text}</p>{/if}
	</form>
{/if}

<style>
	form {
		display: grid;
		gap: 0.5rem;
		margin-top: 0.8rem;
	}
	label {
		font-weight: 600;
	}
	.btn {
		min-height: 48px;
	}
</style>
