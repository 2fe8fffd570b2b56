<script lang="ts">
	import { enhance } from '$app/forms'
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import { useDraft } from '$lib/ui/bench/draft.svelte.ts'
	import { RoutineEdit } from '$lib/ui/routines/routine-edit.svelte.ts'
	import RequestSheet from '$lib/ui/routines/RequestSheet.svelte'
	import { provideProgramNames } from '$lib/ui/sentences/slots/program-names.ts'
	import RoutineLedger from '$lib/ui/routines/RoutineLedger.svelte'
	import RoutineList from '$lib/ui/routines/RoutineList.svelte'
	import TriedStarts from '$lib/ui/routines/TriedStarts.svelte'
	import type { TriedRoutine } from '$lib/core/requests/runs.ts'
	import RunList from '$lib/ui/routines/RunList.svelte'
	import { showMoment } from '$lib/ui/dates.ts'

	let { data, form } = $props()

	provideProgramNames(() => data.programs)
	const edit = new RoutineEdit(useDraft(), () => data.bench.vocabulary)
	const pointed = $derived(page.url.searchParams.get('line') ?? '')

	// One that is named in the address is opened, and one that is opened stands there, with its runs.
	// svelte-ignore state_referenced_locally
	edit.chosen = data.open
	$effect(() => {
		const id = edit.routine?.id ?? ''
		// What is not saved yet the server does not know: it is asked for once.
		if (id !== '' && id !== data.open && id !== page.url.searchParams.get('routine'))
			void goto(`?routine=${id}`, { replaceState: true, keepFocus: true, noScroll: true })
	})

	const { routine } = $derived(edit)
	// Each action gives some of these.
	const result = $derived(form as { message?: string; routine?: string; tried?: TriedRoutine; began?: boolean } | null)
	/** Of the routine that is open, as its draft was then. */
	const tried = $derived(result?.routine === routine?.id ? result?.tried : undefined)
	/** The name that is being typed stays. */
	const keepForm =
		() =>
		async ({ update }: { update: (how: { reset: boolean }) => Promise<void> }) =>
			update({ reset: false })
	const state = $derived(data.states.find((each) => each.routine === routine?.id))
</script>

<div class="routines">
	<RoutineList {edit} states={data.states} />
	<div class="bay">
		<h1 class="visually-hidden">Routines of {edit.draft.document.name}</h1>
		{#if routine}
			<header>
				<label class="visually-hidden" for="name">Name of the routine</label>
				<input
					id="name"
					value={routine.name}
					onchange={(event) => edit.put({ ...routine, name: event.currentTarget.value || 'Routine' })}
				/>
				<form method="POST" action="?/try&routine={routine.id}" use:enhance={keepForm}>
					<input type="hidden" name="routine" value={routine.id} />
					<button class="btn" disabled={edit.draft.saving}>Try it on the last seven days</button>
				</form>
				{#if state?.isLive && state.paused === null && routine.start.kind === 'clock'}
					<form method="POST" action="?/now&routine={routine.id}" use:enhance={keepForm}>
						<input type="hidden" name="routine" value={routine.id} />
						<button class="btn">Start it now</button>
					</form>
				{/if}
				{#if state?.isLive}
					<form method="POST" action="?/switch&routine={routine.id}" use:enhance>
						<input type="hidden" name="routine" value={routine.id} />
						<input type="hidden" name="on" value={state.paused === null ? 'no' : 'yes'} />
						<button class="btn">{state.paused === null ? 'Pause it' : 'Let it start again'}</button>
					</form>
				{/if}
				<button class="btn plain" onclick={() => edit.remove(routine.id)}>Remove routine</button>
			</header>
			<p class="says" role="status">
				{#if !state?.isLive}Starts nothing yet: it is in no release that staff use.
				{:else if state.paused !== null}
					<strong class="bad">{state.paused === '' ? 'Paused.' : 'Stopped.'}</strong>
					{state.paused === '' ? 'It starts nothing until somebody lets it.' : state.paused}
				{:else if state.nextAt !== null}On; it starts next on {showMoment(state.nextAt)}.
				{:else}On, as the live release has it.{/if}
				{#if result?.began && result.routine === routine.id}<strong
						>It was started. What comes of it stands below.</strong
					>{/if}
				{#if result?.message}<span class="says-wrong" role="alert">{result.message}</span>{/if}
			</p>
			<RoutineLedger {edit} {routine} {pointed} {tried} />
			{#if routine.start.kind === 'request'}
				<RequestSheet {routine} app={edit.draft.app} isLive={state?.isLive ?? false} />
			{/if}
			{#if tried}<TriedStarts {tried} isClock={routine.start.kind === 'clock' || routine.start.kind === 'due'} />{/if}
			{#if routine.id === data.open}<RunList runs={data.runs} app={edit.draft.app} routine={routine.id} {state} />{/if}
		{:else}
			<p class="none">
				There is no routine yet. One starts at a button, when a row is saved, before a date or by the clock, and does
				then what its lines say.
			</p>
		{/if}
	</div>
</div>

<style>
	.routines {
		display: grid;
		grid-template-columns: 15rem minmax(0, 1fr);
		flex: 1;
	}
	.routines > :global(nav) {
		background: var(--limewash);
		border-right: 1px solid var(--zinc-3);
	}
	.bay {
		background: var(--paper);
		padding-bottom: 2rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem 1rem;
		padding: 0.6rem 1rem 0.2rem;
	}
	header > input {
		flex: 1;
		min-width: 12rem;
		border: 0;
		background: none;
		color: var(--pitch);
		font: 700 1.35rem var(--head);
		font-stretch: 90%;
		padding: 0.2rem 0;
	}
	.says {
		padding: 0 1rem 0.7rem;
		color: var(--zinc-7);
		border-bottom: 1px solid var(--pitch);
	}
	.bad {
		color: var(--oxide);
	}
	.none {
		padding: 1.5rem;
		max-width: 46rem;
	}
	@media (max-width: 800px) {
		.routines {
			grid-template-columns: 1fr;
		}
	}
</style>
