<script lang="ts">
	/** What somebody outside is asked, and their answer: a plain form, which works with no script too. */
	import Door from '$lib/ui/frame/Door.svelte'
	import { showMoment } from '$lib/ui/dates.ts'

	let { data, form } = $props()

	const { ask } = $derived(data)
	// What was typed comes back by the number of its column.
	const said = $derived((form ?? {}) as { typed?: Record<string, string>; message?: string; sent?: boolean })
</script>

<svelte:head><title>{ask?.subject ?? 'Answer'} · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	{#if said.sent}
		<h1>Thank you</h1>
		<p role="status">Your answer has reached {data.workspace}. You can close this page.</p>
	{:else if !ask}
		<h1>This link is over</h1>
		<p>
			It was answered, its time has passed, or it is not asked any more. If you still have something to say, write to
			whoever sent it.
		</p>
	{:else}
		<h1>{ask.subject}</h1>
		{#if ask.body}<p class="body">{ask.body}</p>{/if}
		<form method="POST">
			{#each ask.columns as { id, name, as, unit, choices, value } (id)}
				{@const at = { id: `c${id}`, name: String(id) }}
				{@const was = said.typed?.[id] ?? value}
				<label for={at.id}>{name}{unit === '' ? '' : `, in ${unit}`}</label>
				{#if as === 'lines'}
					<textarea class="field" {...at} rows="5" value={was}></textarea>
				{:else if as === 'choice'}
					<select class="field" {...at} value={was}>
						<option value=""></option>
						{#each choices as choice (choice)}<option>{choice}</option>{/each}
					</select>
				{:else}
					<input
						class="field"
						{...at}
						type={as === 'date' ? 'date' : 'text'}
						inputmode={as === 'number' ? 'decimal' : undefined}
						autocomplete="off"
						value={was}
					/>
				{/if}
			{/each}
			{#if said.message}<p class="says-wrong" role="alert">{said.message}</p>{/if}
			<button class="btn main">Send it</button>
			<p class="quiet">
				It can be answered once{ask.endsAt === null ? '' : `, until ${showMoment(ask.endsAt)}`}. What you send goes to {data.workspace}.
			</p>
		</form>
	{/if}
</Door>

<style>
	.body {
		white-space: pre-line;
	}
	form {
		display: grid;
		gap: 0.35rem;
		justify-items: start;
		width: min(100%, 30rem);
	}
	label {
		margin-top: 0.6rem;
		font-weight: 600;
	}
	.field {
		width: 100%;
		min-height: 48px;
	}
	.btn {
		margin-top: 0.8rem;
		min-height: 48px;
	}
</style>
