<script lang="ts">
	/** Tries the picture addresses of a column in this browser, lists what does not open, and copies what does. */
	import { showFigure } from '$lib/ui/count.ts'
	import { beforeNavigate } from '$app/navigation'
	import { onDestroy } from 'svelte'
	import { PictureTrial } from '$lib/ui/sources/picture-trial.svelte.ts'
	import { changeStructure } from '$lib/ui/structure/structure.ts'

	let { data } = $props()

	const { table, column } = $derived(data)
	const trial = new PictureTrial()
	const back = $derived(`/bench/${data.draft.id}/tables?table=${table.id}`)
	const photos = $derived(table.columns.filter((each) => each.type === 'photo'))
	let into = $state(0)
	let wrong = $state('')

	const opened = $derived(trial.tried.filter((each) => each.outcome === 'opens').length)
	const failed = $derived(trial.tried.filter((each) => each.outcome === 'does not open'))
	const refused = $derived(trial.tried.filter((each) => each.outcome === 'not copied'))
	const copied = $derived(trial.tried.filter((each) => each.outcome === 'copied').length)

	// This page alone may load pictures from elsewhere, so what is opened next is loaded as a page of its own.
	beforeNavigate(({ to, cancel, type }) => {
		if (!to || type === 'leave') return
		cancel()
		location.href = to.url.href
	})
	onDestroy(() => trial.stop())

	async function copy() {
		wrong = ''
		let target = into
		if (target === 0) {
			const name = freeName(table.columns.map((each) => each.name))
			const made = await changeStructure({ kind: 'column', table: table.id, column: { name, type: 'photo' } })
			if (!made.ok) return void (wrong = made.refusal.message)
			target = made.value.made
		}
		await trial.copy(table.id, target)
	}

	function freeName(taken: readonly string[]): string {
		const names = new Set(taken.map((each) => each.toLowerCase()))
		for (let i = 1; ; i++) {
			const name = i === 1 ? 'Photo' : `Photo ${i}`
			if (!names.has(name.toLowerCase())) return name
		}
	}
</script>

<div class="single">
	<header>
		<h1>{column.name}, tried as pictures</h1>
		<p class="quiet">
			{table.name}. The addresses are tried by this browser, as if you opened each of them; the workspace's own server
			asks for none.
		</p>
	</header>
	{#if trial.state === 'idle'}
		<p><button class="btn main" onclick={() => trial.begin(table, column)}>Try the addresses</button></p>
	{:else if trial.state === 'trying'}
		<p role="status">
			{showFigure(trial.tried.length)}{trial.of > 0 ? ` of ${showFigure(trial.of)}` : ''} tried…
			<button class="btn" onclick={() => trial.stop()}>Stop</button>
		</p>
	{:else if trial.state === 'copying'}
		<p role="status">
			{showFigure(copied + refused.length)} of {showFigure(opened + copied + refused.length)} copied…
			<button class="btn" onclick={() => trial.stop()}>Stop</button>
		</p>
	{:else}
		<p role="status">
			<strong>{showFigure(opened + copied + refused.length)} open, {showFigure(failed.length)} do not.</strong>
			{#if trial.blank > 0}{showFigure(trial.blank)} {trial.blank === 1 ? 'row has' : 'rows have'} no address.{/if}
			{#if copied > 0}{showFigure(copied)} copied into the workspace.{/if}
			<button class="btn" onclick={() => trial.begin(table, column)}>Try again</button>
		</p>
		{#if opened > 0}
			<p class="copy">
				<label for="into">Copy them into</label>
				<select id="into" class="field" bind:value={into}>
					<option value={0}>a new column of photos</option>
					{#each photos as each (each.id)}<option value={each.id}>{each.name}, where it is blank</option>{/each}
				</select>
				<button class="btn main" onclick={copy}
					>Copy {showFigure(opened)} {opened === 1 ? 'picture' : 'pictures'}</button
				>
			</p>
		{/if}
	{/if}
	{#if wrong || trial.wrong}<p class="says-wrong" role="alert">{wrong || trial.wrong}</p>{/if}
	{#each [{ title: 'These do not open', rows: failed }, { title: 'These open, but could not be copied', rows: refused }] as list (list.title)}
		{#if list.rows.length > 0}
			<h2>{list.title}</h2>
			<table class="ruled">
				<thead><tr><th>Row</th><th>Address</th><th>Why</th></tr></thead>
				<tbody>
					{#each list.rows.slice(0, 200) as each (each.row)}
						<tr><td><strong>{each.label}</strong></td><td class="mono">{each.address}</td><td>{each.why}</td></tr>
					{/each}
				</tbody>
			</table>
			{#if list.rows.length > 200}<p class="quiet">and {showFigure(list.rows.length - 200)} more</p>{/if}
		{/if}
	{/each}
	<p><a href={back}>Back to {table.name}</a></p>
</div>

<style>
	header {
		border-bottom: 1px solid var(--zinc-3);
		padding-bottom: 0.7rem;
	}
	.copy {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem;
	}
	.copy label {
		font-weight: 600;
	}
	.copy .field {
		width: auto;
	}
	td.mono {
		overflow-wrap: anywhere;
		font-size: 0.85rem;
	}
</style>
