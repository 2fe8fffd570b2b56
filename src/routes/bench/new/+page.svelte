<script lang="ts">
	import { STARTERS } from '$lib/core/app/starters/all.ts'
	import FromBundle from '$lib/ui/bench/FromBundle.svelte'
	import BeginWith from '$lib/ui/bench/BeginWith.svelte'
	import { COLOURS } from '$lib/core/app/document.ts'
	import PageHeader from '$lib/ui/frame/PageHeader.svelte'

	let { data, form } = $props()

	/** What it begins with, where that is none of one's own tables. */
	let starter = $state('')
	const name = $derived(STARTERS.find(({ id }) => id === starter)?.name ?? '')
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
			value={form?.name ?? name}
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
		<BeginWith tables={data.tables} roles={data.roles} bind:starter />
		{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
		<button class="btn main">Start the app</button>
	</form>
	<FromBundle />
</main>

<style>
	main {
		max-width: 52rem;
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
	.paints label {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		font-weight: 400;
	}
	.paint {
		width: 1.2rem;
		height: 1.2rem;
		border-radius: 3px;
	}
</style>
