<script lang="ts">
	/** By what people sign in: passwords, and providers outside that vouch for an address. */
	import type { Provider } from '$lib/core/requests/joining.ts'
	import { page } from '$app/state'
	import { PeopleActions } from './people-actions.svelte.ts'

	type Props = {
		providers: readonly Provider[]
		/** Whether passwords serve everybody, or stewards alone. */
		passwords: boolean
	}

	let { providers, passwords }: Props = $props()

	const actions = new PeopleActions()
	let [name, issuer, clientId, secret] = $state(['', '', '', ''])
	let asking = $state(false)

	async function add(event: SubmitEvent) {
		event.preventDefault()
		asking = true
		if (await actions.act({ kind: 'add provider', name, issuer, clientId, secret }))
			[name, issuer, clientId, secret] = ['', '', '', '']
		asking = false
	}
</script>

<main class="single">
	<header>
		<h1>Signing in</h1>
		<p class="quiet">
			A provider vouches for an address: whoever has it under People is that person. Somebody who does not stand there
			comes in at the door of an app, or not at all.
		</p>
	</header>
	{#if actions.wrong}<p class="says-wrong" role="alert">{actions.wrong}</p>{/if}
	<div class="scroll">
		<table class="ruled">
			<thead><tr><th>By</th><th>For</th><th>Where it answers</th><td></td></tr></thead>
			<tbody>
				<tr>
					<td><strong>Password</strong></td>
					<td>{passwords ? 'everybody' : 'stewards alone'}</td>
					<td>here</td>
					<td class="num"
						><button class="btn" onclick={() => actions.act({ kind: 'open passwords', open: !passwords })}
							>{passwords ? 'Keep for stewards' : 'Open to everybody'}</button
						></td
					>
				</tr>
				{#each providers as provider (provider.id)}
					<tr>
						<td><strong>{provider.name}</strong></td>
						<td>whoever it vouches for</td>
						<td class:mono={provider.issuer !== ''}>{provider.issuer || 'the stand-in that ships with the demo'}</td>
						<td class="num"
							><button
								class="btn"
								onclick={() => actions.act({ kind: 'remove provider', provider: provider.id })}
								aria-label="Remove {provider.name}">Remove</button
							></td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	<form onsubmit={add}>
		<h2>Add a provider</h2>
		<p class="quiet note">
			It speaks OpenID Connect. Tell it that people come back to <span class="mono">{page.url.origin}/sign-in/back</span
			>; it gives you the rest.
		</p>
		<label for="provider-name">Name</label>
		<input
			class="field"
			id="provider-name"
			bind:value={name}
			maxlength="60"
			required
			placeholder="What people call it"
		/>
		<label for="issuer">Address</label>
		<input class="field mono" id="issuer" type="url" bind:value={issuer} required placeholder="https://" />
		<label for="client">Client</label>
		<input class="field mono" id="client" bind:value={clientId} required autocomplete="off" />
		<label for="secret">Secret</label>
		<input class="field mono" id="secret" type="password" bind:value={secret} required autocomplete="off" />
		<p class="note">
			<button class="btn main" disabled={asking}>{asking ? 'Asking it who it is…' : 'Add the provider'}</button>
		</p>
	</form>
</main>

<style>
	.scroll {
		overflow-x: auto;
	}
	form {
		display: grid;
		grid-template-columns: 6rem minmax(0, 28rem);
		align-items: center;
		gap: 0.5rem 1rem;
		border-top: 1px solid var(--zinc-3);
		padding-top: 1rem;
	}
	h2,
	.note {
		grid-column: 1 / -1;
	}
	label {
		font-weight: 600;
	}
	@media (max-width: 700px) {
		form {
			grid-template-columns: minmax(0, 1fr);
		}
		th:nth-child(3),
		td:nth-child(3) {
			display: none;
		}
	}
</style>
