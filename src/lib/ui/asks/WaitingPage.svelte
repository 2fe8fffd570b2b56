<script lang="ts">
	/** What waits on somebody, in a list, with one of it open beside; on a phone one or the other. */
	import type { Snippet } from 'svelte'
	import type { AskSummary } from '$lib/core/requests/asks.ts'
	import type { CaseLists } from '$lib/core/requests/cases.ts'
	import type { AccessRequest } from '$lib/core/requests/joining.ts'
	import type { GivenUpRun } from '$lib/core/requests/runs.ts'
	import PageHeader from '../frame/PageHeader.svelte'
	import AtTheDoor from '../people/AtTheDoor.svelte'
	import AskList from './AskList.svelte'
	import CaseList from '../waiting/CaseList.svelte'
	import RunsGivenUp from '../waiting/RunsGivenUp.svelte'
	import type { ComponentProps } from 'svelte'

	type Header = ComponentProps<typeof PageHeader>
	type Props = {
		data: { readonly workspaceName: string; readonly user: Header['user']; readonly waiting: number }
		waits: {
			readonly lists: CaseLists
			readonly asks: readonly AskSummary[]
			readonly accessRequests: readonly AccessRequest[]
			readonly givenUp: readonly GivenUpRun[]
		}
		/** What is open beside the list. */
		open: string | undefined
		/** Whether it was opened by an address of its own. */
		isOpened: boolean
		children: Snippet
		/** What happened to it. */
		happened?: Snippet
	}

	let { data, waits, open, isOpened, children, happened }: Props = $props()
</script>

<svelte:head><title>Waiting on me</title></svelte:head>

<PageHeader title="Waiting on me" workspace={data.workspaceName} user={data.user} waiting={data.waiting} />
<main class="page" class:open={isOpened}>
	<h1 class="visually-hidden">Waiting on me</h1>
	<aside>
		<AtTheDoor requests={waits.accessRequests} />
		<RunsGivenUp runs={waits.givenUp} />
		<AskList asks={waits.asks} {open} />
		<CaseList lists={waits.lists} {open} />
	</aside>
	<section class="sheet">
		<a class="back" href="/waiting">‹ Back to the list</a>
		{@render children()}
	</section>
	{#if happened}<section class="happened">{@render happened()}</section>{/if}
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
