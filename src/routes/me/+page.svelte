<script lang="ts">
	/** One's own account: password, second step, and where one is signed in. */
	import LookOfPages from '$lib/ui/frame/LookOfPages.svelte'
	import { deviceOf } from '$lib/ui/session/device.ts'
	import { enhance } from '$app/forms'
	import { showMoment } from '$lib/ui/dates.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import Telling from '$lib/ui/people/Telling.svelte'
	import SecondStep from '$lib/ui/people/SecondStep.svelte'

	let { data, form } = $props()

	// What was typed comes back by name.
	const said = $derived((form ?? {}) as Record<string, string | boolean | undefined>)
	const saidOf = (part: string) => (said['part'] === part ? said : {})

	/** Enough to know one's own devices by; what the browser calls itself stands behind it. */
</script>

<svelte:head><title>{data.user?.name} · {data.workspaceName}</title></svelte:head>

<PageHeader title={data.workspaceName} workspace="" user={data.user} waiting={data.waiting} />
<main>
	<header>
		<h1>{data.user?.name}</h1>
		<p class="quiet">{data.email} · {data.roleNames.join(', ') || 'no roles yet'}</p>
	</header>

	<section>
		<h2>Password</h2>
		<form method="POST" action="?/password" use:enhance>
			<input type="hidden" autocomplete="username" value={data.email} />
			<label for="old">The one you have</label>
			<input class="field" id="old" name="old" type="password" autocomplete="current-password" required />
			<label for="new">A new one</label>
			<input class="field" id="new" name="new" type="password" autocomplete="new-password" required />
			{#if saidOf('password')['message']}<p class="says-wrong" role="alert">{said['message']}</p>{/if}
			{#if saidOf('password')['done']}<p class="done" role="status">{said['done']}</p>{/if}
			<button class="btn">Change it</button>
		</form>
	</section>

	<section>
		<h2>Time zone</h2>
		<form method="POST" action="?/zone" use:enhance>
			<label for="zone">Where you are</label>
			<select class="field" id="zone" name="zone" value={data.zone.own ?? ''}>
				<option value="">the workspace’s own: {data.zone.workspace}</option>
				{#each data.zones as zone (zone)}<option>{zone}</option>{/each}
			</select>
			<p class="quiet">It decides which day is today in what you see: what is due, what is past.</p>
			{#if saidOf('zone')['message']}<p class="says-wrong" role="alert">{said['message']}</p>{/if}
			{#if saidOf('zone')['done']}<p class="done" role="status">{said['done']}</p>{/if}
			<button class="btn">Keep it</button>
		</form>
	</section>

	<section class="long"><Telling telling={data.telling} pushKey={data.pushKey} said={saidOf('telling')} /></section>

	<section><SecondStep hasFactor={data.hasFactor} {said} /></section>

	<section class="wide">
		<h2>Where you are signed in</h2>
		{#if saidOf('sessions')['done']}<p class="done" role="status">{said['done']}</p>{/if}
		<table class="ruled">
			<thead><tr><th>Device</th><th>Since</th><th>Ends</th><th>By</th><td></td></tr></thead>
			<tbody>
				{#each data.sessions as session (session.id)}
					<tr>
						<td
							><strong title={session.agent}>{deviceOf(session.agent)}</strong>{#if session.isThis}<span
									class="stamp good">this one</span
								>{/if}</td
						>
						<td>{showMoment(session.madeAt)}</td>
						<td>{showMoment(session.expiresAt)}</td>
						<td class="quiet">{session.through}</td>
						<td
							>{#if !session.isThis}<form method="POST" action="?/endSession" use:enhance>
									<input type="hidden" name="id" value={session.id} /><button class="btn">End it</button>
								</form>{/if}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if data.sessions.length > 1}
			<form method="POST" action="?/endOthers" use:enhance><button class="btn">Sign out everywhere else</button></form>
		{/if}
	</section>
	<section class="wide"><LookOfPages /></section>
</main>

<style>
	main {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
		gap: 1.6rem 3rem;
		max-width: 70rem;
		padding: 1.4rem 2rem;
		align-items: start;
	}
	header,
	.wide {
		grid-column: 1 / -1;
	}
	/* What is short goes under what is short. */
	.long {
		grid-row: span 2;
	}
	header {
		border-bottom: 1px solid var(--pitch);
		padding-bottom: 0.7rem;
	}
	section {
		display: grid;
		gap: 0.6rem;
		justify-items: start;
		min-width: 0;
	}
	section > form:not(.wide form) {
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
	.stamp {
		margin-left: 0.6rem;
	}
	@media (max-width: 640px) {
		main {
			padding: 1.1rem;
		}
		.wide {
			overflow-x: auto;
		}
	}
</style>
