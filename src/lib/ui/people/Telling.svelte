<script lang="ts">
	/** How somebody is told by mail: at once, once a day, never; and when not. */
	import ThisDevice from './ThisDevice.svelte'
	import { enhance } from '$app/forms'
	import { MAIL_WAYS, type Telling } from '$lib/core/requests/notices.ts'

	type Props = {
		telling: Telling
		/** The workspace's, for browsers that are told while they are closed. */
		pushKey: string
		/** What came of the last change. */
		said: Readonly<Record<string, string | boolean | undefined>>
	}

	let { telling, pushKey, said }: Props = $props()

	const WORDS = {
		'at once': 'at once',
		'once a day': 'once a day, at 07:00, what I have not read by then',
		never: 'never'
	} as const
</script>

<h2>Being told</h2>
<p class="quiet">What you are told stands under <a href="/notices">Notices</a> anyhow. By mail too:</p>
<form
	method="POST"
	action="?/telling"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
>
	<fieldset>
		<legend class="visually-hidden">By mail</legend>
		{#each MAIL_WAYS as way (way)}
			<label class="way"
				><input type="radio" name="mail" value={way} checked={way === telling.mail} /> {WORDS[way]}</label
			>
		{/each}
	</fieldset>
	<p class="hours">
		<label for="quietFrom">Nothing between</label>
		<input class="field" id="quietFrom" name="quietFrom" type="time" value={telling.quietFrom} />
		<label for="quietUntil">and</label>
		<input class="field" id="quietUntil" name="quietUntil" type="time" value={telling.quietUntil} />
	</p>
	<p class="quiet">What comes meanwhile is sent at the end of it. Invitations and new passwords always come at once.</p>
	{#if said['message']}<p class="says-wrong" role="alert">{said['message']}</p>{/if}
	{#if said['done']}<p class="done" role="status">{said['done']}</p>{/if}
	<button class="btn">Keep it</button>
</form>
<ThisDevice {pushKey} />

<style>
	fieldset {
		border: 0;
		margin: 0;
		padding: 0;
		display: grid;
		gap: 0.3rem;
	}
	.way {
		display: flex;
		align-items: baseline;
		gap: 0.5rem;
		min-height: 32px;
	}
	.hours {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
	}
	.hours label {
		font-weight: 600;
	}
	.hours .field {
		width: 8rem;
	}
	form {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
	}
	.done {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
	}
</style>
