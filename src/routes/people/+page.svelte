<script lang="ts">
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import { cellKey } from '$lib/core/query/wire.ts'
	import { showCell } from '$lib/ui/cells/show-cell.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'
	import NewPerson from '$lib/ui/people/NewPerson.svelte'
	import PersonCard from '$lib/ui/people/PersonCard.svelte'
	import RolesSheet from '$lib/ui/people/RolesSheet.svelte'
	import { STATE_TONES } from '$lib/ui/people/states.ts'
	import SharingSheet from '$lib/ui/people/SharingSheet.svelte'
	import WaysSheet from '$lib/ui/people/WaysSheet.svelte'
	import SigningInSheet from '$lib/ui/people/SigningInSheet.svelte'
	import TeamsSheet from '$lib/ui/people/TeamsSheet.svelte'

	let { data } = $props()

	const sheet = $derived(data.sheet)
	const query = $derived(page.url.searchParams)
	const show = $derived(query.get('show') ?? 'people')
	const label = $derived(sheet.columns.find((column) => column.id === sheet.label))
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

	const roleNames = (person: (typeof sheet.people)[number]) =>
		[...new Set(person.roles.map((held) => sheet.roles.find((role) => role.id === held.role)?.name ?? ''))].join(', ')

	let typing: ReturnType<typeof setTimeout> | undefined

	function look(event: Event) {
		const { value } = event.currentTarget as HTMLInputElement
		clearTimeout(typing)
		typing = setTimeout(
			() => void goto(`/people?starts=${encodeURIComponent(value)}`, { keepFocus: true, replaceState: true }),
			200
		)
	}
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
	<div class="page" class:opened={chosen || adding}>
		<nav aria-label="People">
			<div class="tools">
				<input
					class="field"
					type="search"
					aria-label="Find people whose name begins with"
					placeholder="Name begins with"
					value={query.get('starts') ?? ''}
					oninput={look}
				/>
				{#if sheet.isSteward}<a class="btn main" href="/people?new">Add somebody</a>{/if}
			</div>
			<ul>
				{#each sheet.people as person (person.row.id)}
					<li>
						<a href="/people?person={person.row.id}" class:on={person === chosen}>
							<span class="words">
								<strong>{label ? showCell(label, person.row.cells[cellKey(label.id)]) : ''}</strong>
								<span class="quiet">{roleNames(person) || 'no roles'}</span>
							</span>
							{#if person.state !== 'active'}<span class="stamp {STATE_TONES[person.state]}">{person.state}</span>{/if}
						</a>
					</li>
				{:else}
					<li class="none">Nobody's name begins like that.</li>
				{/each}
			</ul>
			{#if sheet.more}<p class="none quiet">
					These are the first 200. Type the beginning of a name to find others.
				</p>{/if}
		</nav>
		<main>
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
		</main>
	</div>
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
	nav[aria-label='People'] {
		background: var(--chalk);
		border-right: 1px solid var(--zinc-3);
		min-width: 0;
	}
	.tools {
		display: flex;
		gap: 0.5rem;
		padding: 0.8rem 1rem;
	}
	.tools .field {
		min-width: 0;
		flex: 1;
	}
	.tools .btn {
		white-space: nowrap;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--zinc-2);
	}
	li a {
		display: flex;
		align-items: center;
		justify-content: space-between;
		gap: 0.6rem;
		padding: 0.45rem 1rem 0.45rem 0.75rem;
		border-bottom: 1px solid var(--zinc-2);
		border-left: 4px solid transparent;
		color: inherit;
		text-decoration: none;
	}
	li a:hover {
		background: var(--selected);
	}
	li a.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.words {
		display: grid;
		min-width: 0;
	}
	.words .quiet {
		font-size: 0.9rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
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
		.page.opened nav {
			display: none;
		}
		.page:not(.opened) main {
			display: none;
		}
		.back {
			display: block;
		}
	}
</style>
