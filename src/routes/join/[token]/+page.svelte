<script lang="ts">
	import { browser } from '$app/environment'
	import Door from '$lib/ui/frame/Door.svelte'

	let { data, form } = $props()

	const first = $derived(data.link?.kind === 'first steward')
	// What was typed comes back by name.
	const typed = $derived((form ?? {}) as Record<string, string | undefined>)
	const here = browser ? Intl.DateTimeFormat().resolvedOptions().timeZone : 'UTC'
</script>

<svelte:head><title>Come in · {data.workspace}</title></svelte:head>

<Door workspace={first ? '' : data.workspace}>
	{#if !data.link}
		<h1>This link no longer works</h1>
		<p>It has been used, or its time is over. Ask whoever sent it for a new one.</p>
		<p><a href="/sign-in">Sign in</a> or <a href="/forgot">ask for a new password</a></p>
	{:else}
		<h1>{first ? 'Open the shed' : `Welcome, ${data.link.name}`}</h1>
		{#if first}
			<p>You will be its first steward: whoever looks after its people. You can build apps as well.</p>
		{:else}
			<p>You sign in with <strong>{data.link.email}</strong> and the password that you choose here.</p>
		{/if}
		<form method="POST">
			{#if first}
				<label for="workspaceName">What the workspace is called</label>
				<input class="field" id="workspaceName" name="workspaceName" required value={typed['workspaceName'] ?? ''} />
				<label for="name">Your name</label>
				<input class="field" id="name" name="name" autocomplete="name" required value={typed['name'] ?? ''} />
				<label for="email">Your email</label>
				<input
					class="field"
					id="email"
					name="email"
					type="email"
					autocomplete="username"
					required
					value={typed['email'] ?? ''}
				/>
				<input type="hidden" name="timeZone" value={here} />
			{:else}
				<input type="hidden" autocomplete="username" value={data.link.email} />
			{/if}
			<label for="password">A password</label>
			<input class="field" id="password" name="password" type="password" autocomplete="new-password" required />
			<p class="quiet">Ten characters or more. Three or four words that do not belong together do well.</p>
			{#if typed['message']}<p class="says-wrong" role="alert">{typed['message']}</p>{/if}
			<button class="btn main">{first ? 'Open it' : 'Come in'}</button>
		</form>
	{/if}
</Door>
