<script lang="ts">
	/** People who wait on a doorstep: let in or turned away in one press. */
	import { invalidateAll } from '$app/navigation'
	import type { AccessRequest } from '$lib/core/requests/joining.ts'
	import { showMoment } from '../dates.ts'
	import { send } from '../send.ts'

	type Props = { requests: readonly AccessRequest[] }

	let { requests }: Props = $props()

	let wrong = $state('')

	/** Of those who came by no way in, the role that they are to hold, by the request. */
	let chosen = $state<Record<number, number>>({})

	async function decide(id: number, letIn: boolean) {
		const role = chosen[id]
		const answer = await send('POST', '/waiting/door', { id, letIn, ...(role === undefined ? {} : { role }) })
		wrong = answer.ok ? '' : answer.refusal.message
		await invalidateAll()
	}
</script>

{#if requests.length > 0 || wrong !== ''}
	<section aria-labelledby="doorstep">
		<h2 id="doorstep">On the doorstep</h2>
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
		{#each requests as request (request.id)}
			<article>
				<p>
					<strong>{request.name}</strong> <span class="quiet">{request.email}</span><br />
					asks to come into <strong>{request.app}</strong>, {showMoment(request.at)}.
					{#if request.gives !== null}They would hold {request.gives}.{/if}
				</p>
				{#if request.gives === null}
					<label
						>As
						<select
							class="field"
							aria-label="Role for {request.name}"
							onchange={(event) => (chosen[request.id] = Number(event.currentTarget.value))}
						>
							<option value="" selected disabled>choose a role</option>
							{#each request.roles as role (role.id)}<option value={role.id}>{role.name}</option>{/each}
						</select></label
					>
				{/if}
				{#if request.answer}<p class="answer">
						{#if request.asks}<span class="quiet">{request.asks}</span><br />{/if}{request.answer}
					</p>{/if}
				<p class="ways">
					<button
						class="btn main"
						disabled={request.gives === null && chosen[request.id] === undefined}
						onclick={() => decide(request.id, true)}
						aria-label="Let {request.name} in">Let in</button
					>
					<button class="btn danger" onclick={() => decide(request.id, false)} aria-label="Turn {request.name} away"
						>Turn away</button
					>
				</p>
			</article>
		{/each}
	</section>
{/if}

<style>
	section {
		padding: 0.9rem 1rem;
		border-bottom: 1px solid var(--zinc-3);
		display: grid;
		gap: 0.7rem;
	}
	h2 {
		font-size: 0.95rem;
	}
	article {
		display: grid;
		gap: 0.4rem;
		border-left: 4px solid var(--marigold);
		padding-left: 0.7rem;
	}
	.answer {
		white-space: pre-line;
	}
	.ways {
		display: flex;
		gap: 0.5rem;
	}
</style>
