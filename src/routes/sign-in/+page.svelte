<script lang="ts">
	import Door from '$lib/ui/frame/Door.svelte'

	let { data, form } = $props()

	const roles = $derived([...new Set(data.people.map((person) => person.roles[0] ?? 'Others'))].sort())
	const query = $derived(`&then=${encodeURIComponent(data.then)}`)
	/** After a password, or after a provider let somebody in who set a second step up. */
	const ticket = $derived(form ? ('ticket' in form ? form.ticket : undefined) : data.ticket || undefined)

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

<svelte:head><title>Sign in · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	{#if ticket}
		<h1>One more step</h1>
		<form method="POST" action="?/code{query}">
			<input type="hidden" name="ticket" value={ticket} />
			<label for="code">The six figures that your authenticator shows now</label>
			<input
				class="field code"
				id="code"
				name="code"
				inputmode="numeric"
				autocomplete="one-time-code"
				maxlength="7"
				required
				use:focus
			/>
			{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
			<button class="btn main">Go on</button>
			<p class="quiet">
				No authenticator at hand? A steward can take the second step off. <a href="/sign-in">Begin again</a>
			</p>
		</form>
	{:else}
		<h1>Sign in</h1>
		{#if data.providers.length > 0}
			<p class="providers">
				{#each data.providers as provider (provider.id)}
					<a
						class="btn"
						class:main={!data.passwords}
						data-sveltekit-reload
						href="/sign-in/with/{provider.id}?then={encodeURIComponent(data.then)}">Sign in with {provider.name}</a
					>
				{/each}
			</p>
			<p class="or quiet">{data.passwords ? 'or by password' : 'Stewards also sign in by password.'}</p>
		{/if}
		<form method="POST" action="?/password{query}">
			<label for="email">Email</label>
			<input
				class="field"
				id="email"
				name="email"
				type="email"
				autocomplete="username"
				required
				value={form?.email ?? ''}
			/>
			<label for="password">Password</label>
			<input class="field" id="password" name="password" type="password" autocomplete="current-password" required />
			{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
			<p class="end">
				<button class="btn" class:main={data.passwords}>Sign in</button> <a href="/forgot">Forgotten it?</a>
			</p>
		</form>
	{/if}
	{#if data.people.length > 0}
		<section aria-labelledby="demo">
			<h2 id="demo">Or, in this demo, as one of these people</h2>
			<p class="quiet">All of them are invented. Each sees what their roles let them see.</p>
			<form method="POST" action="?/demo{query}" class="people">
				{#each roles as role (role)}
					<div>
						<h3>{role}</h3>
						{#each data.people.filter((person) => (person.roles[0] ?? 'Others') === role) as person (person.person)}
							<button class="person" name="person" value={person.person}>{person.name}</button>
						{/each}
					</div>
				{/each}
			</form>
		</section>
	{/if}
</Door>

<style>
	.end {
		display: flex;
		align-items: center;
		gap: 1.2rem;
	}
	.end .btn {
		margin: 0;
	}
	.providers {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.code {
		font: 600 1.4rem var(--mono);
		letter-spacing: 0.2em;
		max-width: 12rem;
	}
	section {
		border-top: 1px solid var(--zinc-3);
		padding-top: 1.2rem;
		display: grid;
		gap: 0.5rem;
	}
	.people {
		display: block;
		max-width: 60rem;
		columns: 11rem;
		margin-top: 0.5rem;
	}
	.people > div {
		display: flex;
		flex-direction: column;
		align-items: flex-start;
		break-inside: avoid;
		padding-bottom: 0.8rem;
	}
	.people h3 {
		color: var(--zinc-7);
		margin-bottom: 0.2rem;
	}
	.person {
		border: 0;
		background: none;
		font: inherit;
		color: var(--sea);
		text-decoration: underline;
		min-height: 24px;
		padding: 0.1rem 0;
		text-align: left;
	}
</style>
