<script lang="ts">
	/** The real app beside the lines, as two people see it, each on the width of the device they use. */
	import { READ_AGAIN } from './tell-bench.ts'
	import type { WhoSees } from '$lib/core/requests/access.ts'
	import { ask, send } from '../send.ts'
	import { chooseLookers, whyNothing } from './choose-lookers.ts'
	import { differences, type Sights } from './sights.ts'
	import { untrack } from 'svelte'

	type Person = { person: number; name: string; roles: readonly string[] }
	type Width = 'desk' | 'tablet' | 'phone'
	type Props = {
		app: number
		people: readonly Person[]
		screen: string | undefined
		/** Called with the line that is pointed at. */
		onpoint: (line: string) => void
	}

	let { app, people, screen, onpoint }: Props = $props()

	const WIDTHS: Readonly<Record<Width, number>> = { desk: 1100, tablet: 768, phone: 390 }

	interface View {
		person: number
		width: Width
		token: string
		wrong: string
		frame?: HTMLIFrameElement | undefined
		sees?: Sights
	}

	let views = $state<View[]>([
		{ person: 0, width: 'desk', token: '', wrong: '' },
		{ person: 0, width: 'phone', token: '', wrong: '' }
	])
	/** Who sees something of the draft; undefined until that is known. */
	let seeing = $state.raw<WhoSees | undefined>()
	let room = $state(600)
	/** Whether something was tried on the copy since it was begun. */
	let tried = $state(false)

	const nameOf = (view: View | undefined) => people.find((each) => each.person === view?.person)?.name ?? ''
	const apart = $derived.by(() => {
		const [one, other] = views
		if (!one?.sees || !other?.sees || one.person === other.person) return []
		return differences({ name: nameOf(one), sees: one.sees }, { name: nameOf(other), sees: other.sees })
	})

	async function begin(view: View, person: number) {
		view.person = person
		// Nothing of whoever was looked as before stands under another name.
		view.token = view.wrong = ''
		delete view.sees
		const answer = await send('POST', '/bench/looks', { app, person })
		// Somebody else may have been chosen meanwhile.
		if (view.person !== person) return
		view.token = answer.ok ? answer.value.token : ''
		view.wrong = answer.ok ? '' : answer.refusal.message
	}

	// Asks for the two views once, when the Lookout opens.
	$effect(() => {
		untrack(() => void open())
	})

	async function open() {
		if (!(await lookAgain()) || !seeing) return
		chooseLookers(people, seeing).forEach((each, at) => {
			const view = views[at]
			if (view?.person === 0 && each) void begin(view, each.person)
		})
	}

	async function lookAgain(): Promise<boolean> {
		const answer = await ask(`/bench/looks?app=${app}`)
		if (answer.ok) seeing = answer.value
		else for (const view of views) view.wrong = answer.refusal.message
		return answer.ok
	}

	// The draft may come to show other tables, and lines are written elsewhere on the Bench.
	$effect(() => {
		void screen
		if (untrack(() => seeing)) untrack(() => void lookAgain())
	})

	function onmessage(event: MessageEvent) {
		if (event.origin !== location.origin) return
		const view = views.find((each) => each.frame?.contentWindow === event.source)
		const told = event.data as Partial<Record<'tinShedLine' | 'tinShedTried' | 'tinShedSees', unknown>> | null
		if (!view || !told) return
		if (typeof told.tinShedLine === 'string') onpoint(told.tinShedLine)
		// Frames are pages of our own, under the same origin.
		if (told.tinShedSees) view.sees = told.tinShedSees as Sights
		if (told.tinShedTried) {
			tried = true
			readAgain(view)
		}
	}

	function readAgain(except?: View) {
		for (const each of views) if (each !== except) each.frame?.contentWindow?.postMessage(READ_AGAIN, location.origin)
	}

	async function beginAfresh() {
		const answer = await send('DELETE', '/bench/looks', {})
		if (!answer.ok) return
		tried = false
		readAgain()
	}

	/** The frame's own room: the padding on both sides is no part of it. */
	const scaleOf = (width: Width) => Math.min(1, (room - 50) / WIDTHS[width])
	const initials = (name: string) =>
		name
			.split(/[\s-]+/)
			.map((part) => part[0])
			.join('')
			.slice(0, 2)
</script>

<svelte:window {onmessage} />

<section class="lookout" aria-label="Lookout" bind:clientWidth={room}>
	<header>
		<h2>Lookout</h2>
		<p class="quiet">the draft, as these people see it, on a copy of the data</p>
		<span class="gap"></span>
		{#if tried}<button class="btn" onclick={beginAfresh}>Begin with a fresh copy</button>{/if}
	</header>
	{#each views as view, at (at)}
		{@const who = people.find((each) => each.person === view.person)}
		{@const nothing = seeing && whyNothing(view.person, seeing)}
		{@const scale = scaleOf(view.width)}
		<div class="as">
			<span class="face" aria-hidden="true">{initials(who?.name ?? '')}</span>
			<label>
				as
				<select value={view.person} onchange={(event) => void begin(view, Number(event.currentTarget.value))}>
					{#each people as person (person.person)}
						<option value={person.person}
							>{person.name}{person.roles[0] ? `, ${person.roles[0].toLowerCase()}` : ''}</option
						>
					{/each}
				</select>
			</label>
			<span class="gap"></span>
			{#each ['desk', 'tablet', 'phone'] as const as width (width)}
				<button class:on={view.width === width} aria-pressed={view.width === width} onclick={() => (view.width = width)}
					>{width}</button
				>
			{/each}
		</div>
		<div class="seen">
			{#if nothing}
				<div class="nothing">
					<p>
						{who?.name} sees nothing here: no line lets {who?.roles[0]
							? `${who.roles[0].toLowerCase()}`
							: 'who holds no role'}
						see or add a row of {nothing.map(({ name }) => name).join(', ') || 'any table, and the draft shows none'}.
					</p>
					{#each nothing.filter(({ kept }) => kept) as table (table.id)}
						<p><a href="/bench/{app}/access?table={table.id}">Write a line for {table.name}</a></p>
					{/each}
				</div>
			{:else if view.token}
				<div
					class="frame {view.width}"
					style:height="{Math.round((view.width === 'phone' ? 560 : 430) * (view.width === 'phone' ? 1 : scale) + 4)}px"
					style:width="{Math.round(WIDTHS[view.width] * scale)}px"
				>
					{#key view.token}
						<iframe
							bind:this={view.frame}
							title="The app as {who?.name} sees it"
							src="/as/{view.token}/{screen ?? ''}"
							style:width="{WIDTHS[view.width]}px"
							style:height="{Math.round((view.width === 'phone' ? 560 : 430) / (view.width === 'phone' ? scale : 1))}px"
							style:transform="scale({scale})"
						></iframe>
					{/key}
				</div>
			{:else if view.wrong}
				<p class="says-wrong">{view.wrong}</p>
			{:else if seeing && view.person === 0}
				<p class="quiet">There is nobody else in this workspace yet.</p>
			{:else}
				<p class="quiet">Opening the app{who ? ` as ${who.name}` : ''}…</p>
			{/if}
			{#if at === views.length - 1 && views.every((each) => each.sees && !(seeing && whyNothing(each.person, seeing)))}
				<div class="apart" role="status">
					<h3>{apart.length > 0 ? 'Not the same for both' : 'The same for both'}</h3>
					{#each apart as each (each)}<p>{each}</p>{:else}<p class="quiet">
							Both get the same rows, columns and buttons of this screen.
						</p>{/each}
				</div>
			{/if}
		</div>
	{/each}
</section>

<style>
	.lookout {
		background-color: var(--limewash);
		background-image: var(--ribs-light);
		border-left: 1px solid var(--zinc-3);
		padding: 0.9rem 1.4rem 2rem;
		display: flex;
		flex-direction: column;
		gap: 0.6rem;
		min-width: 0;
	}
	header {
		display: flex;
		align-items: baseline;
		gap: 0.7rem;
	}
	.as {
		display: flex;
		align-items: center;
		gap: 0.5rem;
		flex-wrap: wrap;
	}
	.as select {
		border: 0;
		border-bottom: 2px solid var(--marigold);
		background: transparent;
		color: var(--pitch);
		font: inherit;
		font-weight: 700;
		padding: 0.15rem 1.6rem 0.15rem 0.1rem;
	}
	.face {
		display: grid;
		place-items: center;
		width: 1.7rem;
		height: 1.7rem;
		border-radius: 50%;
		background: var(--page-header);
		color: var(--marigold);
		font-size: 0.75rem;
		font-weight: 700;
	}
	.gap {
		flex: 1;
	}
	.as button {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
		font: 600 0.82rem var(--head);
		padding: 0.25rem 0.55rem;
	}
	.as button.on {
		background: var(--pitch);
		color: var(--on-ink);
		border-color: var(--pitch);
	}
	.seen {
		display: flex;
		flex-wrap: wrap;
		align-items: flex-start;
		gap: 0.8rem 1rem;
	}
	.nothing {
		display: grid;
		gap: 0.4rem;
		max-width: 34rem;
		padding: 0.8rem 1rem;
		border: 1px solid var(--zinc-3);
		background: var(--paper);
	}
	.apart {
		flex: 1 1 12rem;
		display: grid;
		gap: 0.25rem;
		font-size: 0.92rem;
	}
	.frame {
		border: 2px solid var(--pitch);
		border-radius: 4px;
		overflow: hidden;
		background: var(--paper);
		flex: none;
	}
	.frame.phone {
		border-radius: 14px;
	}
	iframe {
		border: 0;
		transform-origin: 0 0;
		display: block;
	}
</style>
