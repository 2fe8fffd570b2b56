<script lang="ts">
	import { onMount } from 'svelte'
	import { followTables } from '$lib/ui/follow.ts'
	import Door from '$lib/ui/frame/Door.svelte'
	import { showMoment } from '$lib/ui/dates.ts'

	let { data, form } = $props()

	const { door } = $derived(data)
	// Each action gives some of these.
	const typed = $derived((form ?? {}) as Record<string, string | undefined>)
	// As above.
	const sentTo = $derived((form as { sentTo?: string } | null)?.sentTo)
	const waits = $derived(door.at?.state === 'waiting' ? door.at : undefined)
	const worded = $derived(door.byCode || door.byPhrase)
	const needsWord = $derived(worded && door.domains.length === 0 && door.asks === null)

	/** Where no links are sent, a provider says first who it is. */
	const asked = $derived(data.isIn || data.vouched !== null || door.byMail)

	/** Whoever waits is taken in without loading the page again. */
	onMount(() => (data.isIn ? followTables([]) : undefined))
</script>

<svelte:head><title>{door.name} · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	<h1>{door.name}</h1>
	{#if waits}
		<p role="status"><span class="stamp look">waiting</span> since {showMoment(waits.since)}</p>
		<p class="words">
			{waits.words || 'Whoever looks after it has been told. This page says so as soon as you are let in.'}
		</p>
		<p><a class="btn" href="/">Your other apps</a></p>
	{:else if door.at?.state === 'let in'}
		<p role="status"><span class="stamp good">let in</span> You were let in.</p>
		<p><a class="btn main" href="/app/{door.app}">Open {door.name}</a></p>
	{:else if sentTo}
		<p role="status">
			We have sent a link to <strong>{sentTo}</strong>. Open it to come in; it works once, for a day.
		</p>
		<p class="quiet">Nothing there? Look among unwanted mail, or ask again in an hour.</p>
	{:else}
		{#if door.at?.state === 'turned away'}
			<p role="status"><span class="stamp bad">turned away</span> You were not let in. You can ask once more.</p>
		{/if}
		{#if door.domains.length > 0}<p>Open to everybody with an address at {door.domains.join(' or ')}.</p>{/if}
		<form method="POST" action="?/come">
			{#if data.vouched}
				<p>You come as <strong>{data.vouched.name}</strong>, {data.vouched.email}.</p>
			{:else if !data.isIn && door.byMail}
				<label for="name">Your name</label>
				<input
					class="field"
					id="name"
					name="name"
					autocomplete="name"
					required
					maxlength="120"
					value={typed['name'] ?? ''}
				/>
				<label for="email">Your email</label>
				<input
					class="field"
					id="email"
					name="email"
					type="email"
					autocomplete="email"
					required
					value={typed['email'] ?? ''}
				/>
			{/if}
			{#if worded && asked}
				<label for="code"
					>{door.byCode && door.byPhrase ? 'The code or pass phrase' : door.byCode ? 'The code' : 'The pass phrase'} that
					you were given{needsWord ? '' : ', if you have one'}</label
				>
				<input
					class="field"
					id="code"
					name="code"
					autocomplete="off"
					required={needsWord}
					value={typed['code'] ?? ''}
				/>
			{/if}
			{#if door.asks !== null && door.asks !== '' && asked}
				<label for="answer">{door.asks}</label>
				<textarea class="field" id="answer" name="answer" rows="3" maxlength="2000">{typed['answer'] ?? ''}</textarea>
			{/if}
			{#if typed['message']}<p class="says-wrong" role="alert">{typed['message']}</p>{/if}
			{#if asked}<button class="btn main">{door.asks !== null && !worded ? 'Ask to come in' : 'Come in'}</button>{/if}
		</form>
		{#if !data.isIn && !data.vouched}
			{#each door.providers as provider (provider.id)}
				<p>
					<a
						class="btn"
						class:main={!door.byMail}
						data-sveltekit-reload
						href="/sign-in/with/{provider.id}?door={door.app}&then={encodeURIComponent(`/door/${door.app}`)}"
						>{door.byMail ? 'Or come in' : 'Come in'} with {provider.name}</a
					>
				</p>
			{/each}
		{/if}
		{#if door.visitors && !data.isIn}
			<form method="POST" action="?/visit">
				<p class="quiet">You can look in without signing in.</p>
				<button class="btn">Look in as a visitor</button>
			</form>
		{/if}
		{#if !data.isIn}<p>Somebody here already? <a href="/sign-in?then=/app/{door.app}">Sign in</a></p>{/if}
	{/if}
</Door>

<style>
	p {
		max-width: 34rem;
	}
	.words {
		white-space: pre-line;
	}
</style>
