<script lang="ts">
	import { showCount } from '$lib/ui/count.ts'
	import { COLOURS } from '$lib/core/app/document.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'

	let { data, form } = $props()
</script>

<svelte:head><title>New app</title></svelte:head>

<PageHeader title="New app" workspace={data.workspaceName} user={data.user} waiting={data.waiting} />
<main>
	<h1>Start an app</h1>
	<form method="POST">
		<label for="name">What it is called</label>
		<input
			id="name"
			name="name"
			class="field"
			required
			maxlength="80"
			value={form?.name ?? ''}
			placeholder="Mooring Care"
		/>
		<label for="about">What it is for, in a few words</label>
		<input id="about" name="about" class="field" maxlength="200" />
		<fieldset>
			<legend>Its colour</legend>
			<div class="paints">
				{#each COLOURS as colour, i (colour)}
					<label
						><input type="radio" name="colour" value={colour} checked={i === 0} /><span
							class="paint"
							style:background="var(--{colour})"
						></span>{colour}</label
					>
				{/each}
			</div>
		</fieldset>
		<fieldset>
			<legend>Tables to make screens from</legend>
			{#each data.tables as table (table.id)}
				<label class="tick"
					><input type="checkbox" name="table" value={table.id} />{table.name}<span class="quiet"
						>{showCount(table.rows)} {table.rows === 1 ? 'row' : 'rows'}</span
					></label
				>
			{/each}
			<p class="quiet">
				For each a list, a record sheet and a form are made at once; all of it can be changed. Choose none to begin with
				a spreadsheet file.
			</p>
		</fieldset>
		{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
		<button class="btn main">Start the app</button>
	</form>
</main>

<style>
	main {
		max-width: 40rem;
		padding: 1.5rem 2rem;
		display: grid;
		gap: 1rem;
	}
	form {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
	}
	label,
	legend {
		font-weight: 600;
	}
	fieldset {
		border: 0;
		padding: 0;
		margin: 0.6rem 0 0;
	}
	.paints {
		display: flex;
		flex-wrap: wrap;
		gap: 0.9rem;
		margin-top: 0.3rem;
	}
	.paints label,
	.tick {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		font-weight: 400;
	}
	.tick {
		padding: 0.25rem 0;
	}
	.paint {
		width: 1.2rem;
		height: 1.2rem;
		border-radius: 3px;
	}
</style>
