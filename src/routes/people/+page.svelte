<script lang="ts">
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import NewPerson from '$lib/ui/people/NewPerson.svelte'
	import PeopleList from '$lib/ui/people/PeopleList.svelte'
	import PersonCard from '$lib/ui/people/PersonCard.svelte'
	import RolesSheet from '$lib/ui/people/RolesSheet.svelte'
	import SharingSheet from '$lib/ui/people/SharingSheet.svelte'
	import WaysSheet from '$lib/ui/people/WaysSheet.svelte'
	import SigningInSheet from '$lib/ui/people/SigningInSheet.svelte'
	import TeamsSheet from '$lib/ui/people/TeamsSheet.svelte'

	let { data } = $props()

	const sheet = $derived(data.sheet)
	const query = $derived(page.url.searchParams)
	const show = $derived(query.get('show') ?? 'people')
	const chosen = $derived(sheet.people.find((each) => each.row.id === query.get('person')))
	const adding = $derived(query.has('new'))

	const TABS = [
		{ show: 'people', name: 'People' },
		{ show: 'teams', name: 'Teams' },
		{ show: 'roles', name: 'Roles' },
		{ show: 'sharing', name: 'Sharing' },
		{ show: 'ways', name: 'Ways in' },
		{ show: 'signing', name: 'Signing in' }
	]
	const holds = $derived<Record<string, number>>({
		people: sheet.people.length,
		teams: sheet.teams.length,
		roles: sheet.roles.length,
		sharing: data.sharing?.length ?? 0,
		ways: data.ways?.open.length ?? 0,
		signing: data.ways ? data.ways.providers.length + 1 : 0
	})
</script>

<svelte:head><title>People · {data.workspaceName}</title></svelte:head>

<PageHeader title={data.workspaceName} workspace="People, teams and roles" user={data.user} waiting={data.waiting}>
	{#snippet below()}
		<nav class="bays" aria-label="People, teams and roles">
			{#each TABS.filter((tab) => (!['ways', 'signing'].includes(tab.show) || data.ways) && (tab.show !== 'sharing' || data.sharing)) as tab (tab.show)}
				<a
					href="/people?show={tab.show}"
					class:on={show === tab.show}
					aria-current={show === tab.show ? 'page' : undefined}>{tab.name} <span>{holds[tab.show]}</span></a
				>
			{/each}
		</nav>
	{/snippet}
</PageHeader>
{#if show === 'teams'}<TeamsSheet {sheet} />
{:else if show === 'roles'}<RolesSheet {sheet} />
{:else if show === 'sharing' && data.sharing}<SharingSheet {sheet} apps={data.sharing} builders={data.builders} />
{:else if show === 'ways' && data.ways}<WaysSheet
		{sheet}
		ways={data.ways.open}
		proofs={data.ways.proofs}
		apps={data.ways.apps}
	/>
{:else if show === 'signing' && data.ways}<SigningInSheet
		providers={data.ways.providers}
		passwords={data.ways.passwords}
	/>
{:else}
	<main class="page" class:opened={chosen || adding}>
		<h1 class="visually-hidden">People</h1>
		<PeopleList {sheet} {chosen} starts={query.get('starts') ?? ''} />
		<div class="card">
			{#if chosen || adding}<p class="back"><a href="/people">‹ All people</a></p>{/if}
			{#if adding}
				<NewPerson {sheet} onadded={(row) => void goto(`/people?person=${row}`)} onclose={() => void goto('/people')} />
			{:else if chosen}
				{#key chosen.row.id}<PersonCard person={chosen} {sheet} />{/key}
			{:else}
				<p class="none">
					Choose somebody to see what they hold.{sheet.isSteward
						? ''
						: ' You may give the roles that you hold and may pass on.'}
				</p>
			{/if}
		</div>
	</main>
{/if}

<style>
	.bays {
		display: flex;
		padding: 0 0.9rem;
		gap: 3px;
		/* On a phone the tabs are drawn sideways. */
		overflow-x: auto;
	}
	.bays a {
		padding: 0.45rem 1rem;
		background: rgb(255 255 255 / 8%);
		color: var(--page-header-text);
		text-decoration: none;
		font: 600 0.92rem var(--head);
		border-top: 3px solid transparent;
		white-space: nowrap;
	}
	.bays a.on {
		background: var(--paper);
		color: var(--pitch);
		border-top-color: var(--marigold);
	}
	.bays span {
		font-weight: 400;
		opacity: 0.8;
	}
	.page {
		display: grid;
		grid-template-columns: minmax(17rem, 25rem) 1fr;
		min-height: calc(100dvh - 84px);
	}
	.none {
		padding: 1.2rem 1.6rem;
	}
	.back {
		display: none;
		padding: 0.8rem 1.6rem 0;
	}
	@media (max-width: 760px) {
		.page {
			grid-template-columns: 1fr;
		}
		.page.opened :global(> nav) {
			display: none;
		}
		.page:not(.opened) .card {
			display: none;
		}
		.back {
			display: block;
		}
	}
</style>
