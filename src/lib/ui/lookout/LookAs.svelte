<script lang="ts">
	/** The app as one person sees it, on the width of a device; or why they see nothing. */
	import type { Snippet } from 'svelte'
	import { initialsOf } from '../initials.ts'
	import FollowOnPhone from './FollowOnPhone.svelte'
	import type { Followers } from './followers.svelte.ts'
	import type { Looked } from './choose-lookers.ts'
	import type { Look, Looks, Width } from './looks.svelte.ts'

	type Props = {
		looks: Looks
		followers: Followers
		view: Look
		app: number
		people: readonly Looked[]
		screen: string | undefined
		/** How many pixels there are from side to side. */
		room: number
		/** What stands beside the frame. */
		beside?: Snippet | undefined
	}

	let { looks, followers, view, app, people, screen, room, beside }: Props = $props()

	const WIDTHS: Readonly<Record<Width, number>> = { desk: 1100, tablet: 768, phone: 390 }
	const HEIGHTS: Readonly<Record<Width, number>> = { desk: 430, tablet: 430, phone: 560 }

	const who = $derived(looks.find(view))
	const nothing = $derived(looks.whyNothing(view))
	/** The frame's own room: the padding on both sides is no part of it. */
	const scale = $derived(Math.min(1, (room - 50) / WIDTHS[view.width]))
	const isPhone = $derived(view.width === 'phone')
	const height = $derived(HEIGHTS[view.width])
</script>

<div class="as">
	<span class="face" aria-hidden="true">{initialsOf(who?.name ?? '')}</span>
	<label>
		as
		<select value={view.person} onchange={(event) => void view.begin(app, Number(event.currentTarget.value))}>
			{#each people as person (person.person)}
				<option value={person.person}>{person.name}{person.roles[0] ? `, ${person.roles[0].toLowerCase()}` : ''}</option
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
	{#if view.token && !nothing}<button
			class:on={view.isCut}
			aria-pressed={view.isCut}
			title="Plays that this device has no signal"
			onclick={() => view.play(!view.isCut)}>no signal</button
		><FollowOnPhone {followers} look={view.token} name={who?.name ?? ''} />{/if}
</div>
<div class="seen">
	{#if nothing}
		<div class="nothing">
			<p>
				{who?.name} sees nothing here: no line lets {who?.roles[0]?.toLowerCase() ?? 'who holds no role'}
				see or add a row of {nothing.map(({ name }) => name).join(', ') || 'any table, and the draft shows none'}.
			</p>
			{#each nothing.filter(({ owned }) => owned) as table (table.id)}
				<p><a href="/bench/{app}/access?table={table.id}">Write a line for {table.name}</a></p>
			{/each}
		</div>
	{:else if view.token}
		<div
			class="frame {view.width}"
			style:height="{Math.round(height * (isPhone ? 1 : scale) + 4)}px"
			style:width="{Math.round(WIDTHS[view.width] * scale)}px"
		>
			{#key view.token}
				<iframe
					bind:this={view.frame}
					title="The app as {who?.name} sees it"
					src="/as/{view.token}/{screen ?? ''}"
					style:width="{WIDTHS[view.width]}px"
					style:height="{Math.round(height / (isPhone ? scale : 1))}px"
					style:transform="scale({scale})"
				></iframe>
			{/key}
		</div>
	{:else if view.wrong}
		<p class="says-wrong">{view.wrong}</p>
	{:else if looks.seeing && view.person === 0}
		<p class="quiet">There is nobody else in this workspace yet.</p>
	{:else}
		<p class="quiet">Opening the app{who ? ` as ${who.name}` : ''}…</p>
	{/if}
	{@render beside?.()}
</div>

<style>
	.as {
		display: flex;
		align-items: center;
		gap: 0.35rem;
		flex-wrap: wrap;
	}
	.as select {
		max-width: 13.5rem;
		text-overflow: ellipsis;
		border: 0;
		border-bottom: 2px solid var(--marigold);
		background-color: transparent;
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
