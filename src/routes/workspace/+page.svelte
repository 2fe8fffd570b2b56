<script lang="ts">
	/** What a steward says of the workspace as a whole. */
	import { untrack, type ComponentProps } from 'svelte'
	import { WEEKDAY_NAMES } from '$lib/core/schedule/calendar.ts'
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
	const week = $derived((said['week'] ?? data.settings.week).split(','))
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
		<fieldset>
			<legend>People work on</legend>
			{#each WEEKDAY_NAMES as day, i (day)}
				<label class="day"
					><input type="checkbox" name="day" value={i} checked={week.includes(String(i))} /> {day}</label
				>
			{/each}
		</fieldset>
		<p class="hours">
			<label for="from">from</label>
			<input class="field" id="from" name="from" type="time" value={said['from'] ?? data.settings.from} required />
			<label for="until">until</label>
			<input class="field" id="until" name="until" type="time" value={said['until'] ?? data.settings.until} required />
		</p>
		<label for="holidays">Days on which nobody works</label>
		<textarea class="field" id="holidays" name="holidays" rows="6" placeholder="25 Dec 2026 Christmas Day"
			>{said['holidays'] ?? data.settings.holidays}</textarea
		>
		<p class="quiet">
			One a line, besides. Routines go by all of this wherever they say working days or hours. What a formula counts,
			says its own.
		</p>
		<p class="hours">
			<label for="region">Put in the public holidays of</label>
			<input class="field" id="region" name="region" placeholder="England" value={said['region'] ?? ''} />
			<button class="btn" name="fill" value="yes">Put them in</button>
		</p>
		{#if said['filled']}<p class="done" role="status">{said['filled']}</p>{/if}
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
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.1rem;
		margin: 0.9rem 0 0;
		padding: 0;
		border: 0;
	}
	legend {
		font-weight: 600;
	}
	.day {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		min-height: 32px;
		margin: 0;
		font-weight: 400;
	}
	.hours {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
		margin: 0.3rem 0;
	}
	.hours label {
		margin: 0;
	}
	form .hours .field {
		width: 9rem;
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
