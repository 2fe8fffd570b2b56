<script lang="ts">
	/** Makes a release of the draft, at once or at a set time; or calls off the one that is planned. */
	import { enhance } from '$app/forms'
	import type { PlannedRelease } from '$lib/core/requests/bench.ts'
	import { showMoment } from '../dates.ts'

	type Props = {
		planned: PlannedRelease | null
		/** The number that the next release gets. */
		next: number
		ahead: boolean
		/** How many findings keep it back. */
		mistakes: number
		/** What the comparison says, in a few words. */
		proposed: string
		result: { message?: string; released?: number; putBack?: number; planned?: true; calledOff?: true } | null
	}

	let { planned, next, ahead, mistakes, proposed, result }: Props = $props()

	/** What somebody has written in place of what is proposed. */
	let written = $state<string | undefined>()
	let isTimed = $state(false)
	let when = $state('')
	const at = $derived(isTimed && when !== '' ? Date.parse(when) : 0)
	const why = $derived(mistakes > 0 ? 'Mend what is marked first' : ahead ? undefined : 'Nothing new to release')
</script>

{#if planned}
	<form method="POST" action="?/callOff" use:enhance class="planned">
		<p>
			<span class="stamp info">planned</span> Version {planned.version} of the draft is released
			<strong>{showMoment(planned.at)}</strong>, as {planned.by} planned. It is checked again then; if something keeps it
			back, {planned.by} is told. A release that is made before then stays.
		</p>
		<button class="btn">Call it off</button>
	</form>
{/if}
<form
	method="POST"
	action="?/release"
	use:enhance={() =>
		async ({ result: came, update }) => {
			// What is proposed stands there again; what was refused keeps what was typed.
			await update({ reset: false })
			if (came.type !== 'success') return
			written = undefined
			isTimed = false
			when = ''
		}}
>
	<label for="note">What has changed, for those who look later</label>
	<textarea
		id="note"
		name="note"
		class="field"
		rows="3"
		maxlength="500"
		value={written ?? proposed}
		oninput={(event) => (written = event.currentTarget.value)}></textarea>
	<label class="tick"
		><input type="checkbox" name="tells" checked /> Send its link to those who get it by this release</label
	>
	<label class="tick"><input type="checkbox" bind:checked={isTimed} /> At a set time</label>
	{#if isTimed}
		<label for="when">When, by the clock of this device</label>
		<input id="when" class="field" type="datetime-local" bind:value={when} required />
		<input type="hidden" name="at" value={at} />
	{/if}
	{#if result?.message}<p class="says-wrong" role="alert">{result.message}</p>{/if}
	{#if result?.released}<p role="status">
			<span class="stamp good">released</span> Release {result.released} is live.
		</p>{/if}
	{#if result?.putBack}<p role="status">
			<span class="stamp good">put back</span> Release {result.putBack} is live again. Access stayed as it was.
		</p>{/if}
	{#if result?.calledOff && !planned}<p role="status">The planned release is called off.</p>{/if}
	<button class="btn main" disabled={why !== undefined || (isTimed && at === 0)}>
		{why ?? (isTimed ? (planned ? 'Plan it for then instead' : 'Plan the release') : `Release as no. ${next}`)}
	</button>
</form>

<style>
	form {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
		max-width: 38rem;
	}
	textarea {
		width: 100%;
	}
	label {
		font-weight: 600;
	}
	.planned {
		padding: 0.7rem 0.9rem;
		border: 1px solid var(--zinc-3);
		border-left: 4px solid var(--marigold);
		background: var(--paper);
	}
</style>
