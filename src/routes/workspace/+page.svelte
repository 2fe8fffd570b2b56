<script lang="ts">
	/** What a steward says of the workspace as a whole. */
	import { untrack, type ComponentProps } from 'svelte'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import OtherPrograms from '$lib/ui/people/OtherPrograms.svelte'
	import HoldOutgoing from '$lib/ui/people/HoldOutgoing.svelte'

	let { data, form } = $props()

	// Each action gives some of these.
	const said = $derived((form ?? {}) as Record<string, string | undefined>)
	const { given, program: typed } = $derived(
		(form ?? {}) as {
			given?: ComponentProps<typeof OtherPrograms>['given']
			program?: { name: string; address: string }
		}
	)
	const refused = $derived(typed && { ...typed, says: said['message'] ?? '' })
	let locale = $state(untrack(() => said['locale'] ?? data.settings.locale))
	const example = $derived(data.locales.find((each) => each.locale === locale))
</script>

<svelte:head><title>Workspace · {data.workspaceName}</title></svelte:head>

<PageHeader title={data.workspaceName} workspace="Workspace" user={data.user} waiting={data.waiting} />
<main>
	<h1>Workspace</h1>
	<!-- Read anew once it is kept: everything that is written on the page is written the new way. -->
	<form method="POST" action="?/settings">
		<label for="name">What it is called</label>
		<input class="field" id="name" name="name" value={said['name'] ?? data.settings.name} maxlength="80" required />
		<label for="timeZone">Where it is</label>
		<select class="field" id="timeZone" name="timeZone" value={said['timeZone'] ?? data.settings.timeZone}>
			<option>UTC</option>
			{#each data.zones as zone (zone)}<option>{zone}</option>{/each}
		</select>
		<p class="quiet">Its clock says which day is today, unless somebody chooses another for themselves.</p>
		<label for="locale">Dates and figures are written as in</label>
		<select class="field" id="locale" name="locale" bind:value={locale}>
			{#each data.locales as each (each.locale)}<option value={each.locale}>{each.region}</option>{/each}
		</select>
		{#if example}
			<dl>
				<dt>Dates and times</dt>
				<dd>{example.date}</dd>
				<dt>Numbers and money</dt>
				<dd>{example.figures}</dd>
			</dl>
		{/if}
		<p class="quiet">They are typed in the same way. Formulas, files and addresses keep the dot and the year first.</p>
		<label for="holidays">Days on which nobody works</label>
		<textarea class="field" id="holidays" name="holidays" rows="6" placeholder="25 Dec 2026 Christmas Day"
			>{said['holidays'] ?? data.settings.holidays}</textarea
		>
		<p class="quiet">
			One a line, beside Saturdays and Sundays. Routines go by them wherever they say working days. What a formula
			counts, says its own.
		</p>
		{#if said['message'] && !typed}<p class="says-wrong" role="alert">{said['message']}</p>{/if}
		{#if said['done']}<p class="done" role="status">{said['done']}</p>{/if}
		<button class="btn">Keep it</button>
	</form>
	<OtherPrograms programs={data.programs} {given} {refused} />
	<HoldOutgoing outgoing={data.outgoing} />
</main>

<style>
	main {
		max-width: 40rem;
		padding: 1.2rem 2rem 3rem;
	}
	form {
		display: grid;
		justify-items: start;
		gap: 0.4rem;
	}
	label {
		margin-top: 0.9rem;
		font-weight: 600;
	}
	.field {
		width: min(24rem, 100%);
	}
	dl {
		display: grid;
		grid-template-columns: max-content 1fr;
		gap: 0.2rem 1rem;
		margin: 0.3rem 0;
	}
	dt {
		color: var(--quiet);
	}
	dd {
		margin: 0;
		font-variant-numeric: tabular-nums;
	}
	.btn {
		margin-top: 0.8rem;
	}
	@media (max-width: 640px) {
		main {
			padding-inline: 1rem;
		}
	}
</style>
