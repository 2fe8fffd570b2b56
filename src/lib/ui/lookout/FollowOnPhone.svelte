<script lang="ts">
	/** A code by which one device follows this view, and the devices that do. */
	import type { OfferedCode } from '$lib/core/requests/looks.ts'
	import { showTime } from '../dates.ts'
	import { deviceOf } from '../session/device.ts'
	import type { Followers } from './followers.svelte.ts'

	type Props = {
		followers: Followers
		/** The token of the view. */
		look: string
		name: string
	}

	let { followers, look, name }: Props = $props()

	let offered = $state<OfferedCode>()
	let wrong = $state('')
	let left = $state(0)

	const mine = $derived(followers.list.filter((each) => each.look === look))
	const isOpen = $derived(offered !== undefined && mine.some((each) => each.id === offered?.id && each.taken === null))
	const devices = $derived(mine.filter((each) => each.taken !== null))

	async function offer() {
		const answer = await followers.offer(look)
		wrong = answer.ok ? '' : answer.refusal.message
		offered = answer.ok ? answer.value : undefined
	}

	// While a code stands there, whether a device has taken it, and how long it serves.
	$effect(() => {
		const until = offered?.until
		if (until === undefined || !isOpen) return
		const tell = () => (left = Math.max(0, Math.ceil((until - Date.now()) / 1000)))
		tell()
		const timer = setInterval(() => {
			tell()
			void followers.read()
		}, 1_500)
		return () => clearInterval(timer)
	})
</script>

{#if offered && isOpen}
	<div class="offer" role="group" aria-label="Follow it on a device">
		<img src="data:image/svg+xml,{encodeURIComponent(offered.picture)}" alt="The address as a code to scan" />
		<div>
			<p>Scan this with the phone’s camera, or open <b>{offered.address.replace(/[^/]+$/, '')}</b> there and type</p>
			<p class="code">{offered.code}</p>
			<p class="quiet" role="status">
				It serves once, for {left} seconds more. The phone shows the app as {name} sees it.
			</p>
			<button class="btn plain" onclick={() => offered && followers.end(offered.id)}>Put it away</button>
		</div>
	</div>
{:else}
	<button class="btn small" onclick={offer} title="Have it followed on a phone, by a code">On a phone…</button>
{/if}
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
{#each devices as { id, taken } (id)}
	<p class="device" role="status">
		{deviceOf(taken?.agent ?? '')} follows since {showTime(taken?.at ?? 0)}
		<button class="btn plain" onclick={() => followers.end(id)}>End it</button>
	</p>
{/each}

<style>
	.offer {
		flex-basis: 100%;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 1rem;
		padding: 0.8rem 1rem;
		border: 1px solid var(--pitch);
		border-radius: 3px;
		background: var(--paper);
	}
	.offer > div {
		flex: 1 1 14rem;
	}
	img {
		width: 132px;
		height: 132px;
		background: #fff;
	}
	.code {
		font: 600 1.35rem var(--mono);
		letter-spacing: 0.08em;
	}
	.small {
		min-height: 1.9rem;
		padding: 0.15rem 0.45rem;
		font-size: 0.82rem;
	}
	.device {
		flex-basis: 100%;
		font-size: 0.92rem;
	}
</style>
