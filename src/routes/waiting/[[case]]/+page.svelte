<script lang="ts">
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import AtTheDoor from '$lib/ui/people/AtTheDoor.svelte'
	import CaseEvents from '$lib/ui/waiting/CaseEvents.svelte'
	import CaseList from '$lib/ui/waiting/CaseList.svelte'
	import CaseSheet from '$lib/ui/waiting/CaseSheet.svelte'
	import RunsGivenUp from '$lib/ui/waiting/RunsGivenUp.svelte'
	import DecideForm from '$lib/ui/waiting/DecideForm.svelte'

	let { data, form } = $props()

	const { lists, sheet } = $derived(data)
	// Each action gives some of these.
	const result = $derived(form as { message?: string; comment?: string; decided?: string } | null)
</script>

<svelte:head><title>Waiting on me</title></svelte:head>

<PageHeader title="Waiting on me" workspace={data.workspaceName} user={data.user} waiting={data.waiting} />
<main class="page" class:open={data.asked}>
	<h1 class="visually-hidden">Waiting on me</h1>
	<aside>
		<AtTheDoor requests={data.accessRequests} />
		<RunsGivenUp runs={data.givenUp} />
		<CaseList {lists} open={sheet?.id} />
	</aside>
	<section class="sheet">
		{#if sheet}
			<a class="back" href="/waiting">‹ Back to the list</a>
			<CaseSheet {sheet} />
			{#if result?.message}<p class="says-wrong" role="alert">{result.message}</p>{/if}
			{#if sheet.moves.length > 0}
				{#key sheet.id}<DecideForm {sheet} comment={result?.comment ?? ''} />{/key}
			{/if}
		{:else}
			<p class="none">
				{data.accessRequests.length > 0
					? 'Somebody waits on the doorstep.'
					: data.givenUp.length > 0
						? 'No request waits on you.'
						: 'Nothing waits on you.'} What you have decided, and what you have asked for, stands on the left.
			</p>
		{/if}
	</section>
	{#if sheet}
		<section class="happened"><CaseEvents events={sheet.events} /></section>
	{/if}
</main>

<style>
	.page {
		display: grid;
		grid-template-columns: minmax(20rem, 25rem) minmax(0, 1fr) 19rem;
		min-height: calc(100dvh - 46px);
	}
	aside {
		background: var(--limewash);
		border-right: 1px solid var(--zinc-3);
	}
	.none {
		padding: 1rem;
	}
	.sheet {
		padding: 1.1rem 1.8rem 2rem;
		display: grid;
		gap: 0.9rem;
		align-content: start;
	}
	.happened {
		padding: 1.2rem 1.2rem 1rem 0;
	}
	.back {
		display: none;
	}
	@media (max-width: 1000px) {
		.page {
			grid-template-columns: minmax(17rem, 22rem) 1fr;
		}
		.happened {
			grid-column: 2;
			padding: 0 1.8rem 2rem;
		}
	}
	@media (max-width: 640px) {
		.page {
			grid-template-columns: 1fr;
		}
		.page:not(.open) .sheet,
		.page:not(.open) .happened,
		.page.open aside {
			display: none;
		}
		.happened {
			grid-column: 1;
		}
		.back {
			display: inline;
		}
	}
</style>
