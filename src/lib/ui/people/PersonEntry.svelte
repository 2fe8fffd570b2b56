<script lang="ts">
	/** Whether one person can come in, for stewards: invited, signed out, shut out, let back. */
	import type { ShownPerson } from '$lib/core/requests/people.ts'
	import type { PersonAction } from './do.ts'

	type Props = {
		person: ShownPerson
		/** Does it, and says what came of it; whether it was done. */
		act: (asked: PersonAction, done?: string) => Promise<boolean>
	}

	let { person, act }: Props = $props()

	let words = $state('')
	let inviting = $state(false)

	async function invite() {
		const done = 'The invitation is on its way. Its link works once, for seven days.'
		if (await act({ kind: 'invite', words }, done)) inviting = false
	}
</script>

<section aria-labelledby="entry">
	<h3 id="entry">Coming in</h3>
	{#if inviting}
		<label for="words">What you want to add (may stay empty)</label>
		<textarea id="words" class="field" rows="3" bind:value={words}></textarea>
		<p class="row">
			<button class="btn main" onclick={invite}>Send the invitation</button>
			<button class="btn" onclick={() => (inviting = false)}>Not now</button>
		</p>
	{:else}
		<p class="row">
			{#if person.state === 'suspended'}
				<button class="btn" onclick={() => act({ kind: 'let back' }, 'They can sign in again.')}>Let back in</button>
			{:else}
				{#if person.state !== 'active'}<button class="btn" onclick={() => (inviting = true)}
						>{person.state === 'invited' ? 'Invite again' : 'Invite'}</button
					>{/if}
				{#if person.state === 'active'}
					<button class="btn" onclick={() => act({ kind: 'sign out' }, 'They are signed out everywhere.')}
						>Sign out everywhere</button
					>
					{#if !person.isMe && person.hasFactor}<button
							class="btn"
							onclick={() => act({ kind: 'take off second factor' }, 'Signing in asks for their password alone.')}
							>Take the second step off</button
						>{/if}
				{/if}
				{#if !person.isMe}<button
						class="btn danger"
						onclick={() =>
							act({ kind: 'suspend' }, 'Suspended: signed out everywhere, and sees nothing until let back in.')}
						>Suspend</button
					>{/if}
			{/if}
		</p>
	{/if}
	{#if person.keepsPeople !== null}
		<p>
			{person.keepsPeople
				? 'Keeps the list of people: brings files into it, and says who sees what of it.'
				: 'As a builder they could keep the list of people: bring a shared list of addresses into it, and say who sees what of it.'}
			<button
				class="btn"
				onclick={() =>
					act(
						{ kind: 'keep people', keeps: !person.keepsPeople },
						person.keepsPeople ? 'They keep it no more.' : 'They keep it from now on, on the Bench.'
					)}>{person.keepsPeople ? 'Take it from them' : 'Let them keep it'}</button
			>
		</p>
	{/if}
</section>
