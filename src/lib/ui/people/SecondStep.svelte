<script lang="ts">
	/** A code from an authenticator as a second step of signing in: set up, confirmed, taken off. */
	import { enhance } from '$app/forms'

	type Said = Readonly<Record<string, string | boolean | undefined>>
	type Props = {
		hasFactor: boolean
		/** What came of the last form, and the part of the page that it is about. */
		said: Said
	}

	let { hasFactor, said }: Props = $props()

	const saidOf = (part: string): Said => (said['part'] === part ? said : {})
	const owesCode = $derived(Boolean(saidOf('factor')['secret'] ?? saidOf('code')['message']))
</script>

<h2>Second step</h2>
{#if saidOf('factor')['done'] ?? saidOf('code')['done']}<p class="done" role="status">{said['done']}</p>{/if}
{#if owesCode}
	{#if said['picture']}
		<p>Scan this with your authenticator, or type the letters into it. Then write the figures that it shows.</p>
		<img src={String(said['picture'])} alt="A code to scan with an authenticator" width="220" height="220" />
		<p class="mono secret">
			{String(said['secret'])
				.match(/.{1,4}/g)
				?.join(' ')}
		</p>
	{:else}<p>Your authenticator has it already. Write the figures that it shows now.</p>{/if}
	<form method="POST" action="?/confirmFactor" use:enhance>
		<label for="code">Six figures</label>
		<input
			class="field"
			id="code"
			name="code"
			inputmode="numeric"
			autocomplete="one-time-code"
			maxlength="7"
			required
		/>
		{#if said['message']}<p class="says-wrong" role="alert">{said['message']}</p>{/if}
		<button class="btn main">Set it up</button>
	</form>
{:else}
	<p>
		{hasFactor
			? 'Signing in asks for a code from your authenticator as well.'
			: 'Signing in can ask for a code from an authenticator as well, so that a password alone lets nobody in.'}
	</p>
	<form method="POST" action={hasFactor ? '?/dropFactor' : '?/beginFactor'} use:enhance>
		<label for="factor-old">Your password</label>
		<input class="field" id="factor-old" name="old" type="password" autocomplete="current-password" required />
		{#if saidOf('factor')['message']}<p class="says-wrong" role="alert">{said['message']}</p>{/if}
		<button class="btn">{hasFactor ? 'Take it off' : 'Begin'}</button>
	</form>
{/if}

<style>
	form {
		display: grid;
		gap: 0.35rem;
		width: min(22rem, 100%);
	}
	label {
		font-weight: 600;
	}
	form .btn {
		justify-self: start;
	}
	.done {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
	}
	.secret {
		overflow-wrap: anywhere;
	}
	img {
		background: #fff;
	}
</style>
