<script lang="ts">
	/** Other programs with which the workspace speaks: added with a secret that is shown once, given a new one, or removed. */
	import { enhance } from '$app/forms'
	import type { OtherProgram } from '$lib/core/requests/programs.ts'
	import { showDay } from '../dates.ts'

	interface Given {
		readonly name: string
		readonly keyId: string
		readonly secret: string
	}

	type Props = {
		programs: readonly OtherProgram[]
		/** Of the program that has just got a secret. */
		given: Given | undefined
		/** What was typed and refused, and why. */
		refused: { readonly name: string; readonly address: string; readonly says: string } | undefined
	}

	let { programs, given, refused }: Props = $props()
</script>

<section aria-labelledby="programs">
	<h2 id="programs">Other programs</h2>
	<p class="quiet">
		They may start routines that name them, and routines may send them values. Each request is signed by a secret that
		both hold.
	</p>
	{#if given}
		<div class="given" role="status">
			<p>
				<strong>The secret of {given.name}.</strong> It is shown this once: put it where that program keeps its own.
			</p>
			<dl>
				<dt>Key id</dt>
				<dd class="mono">{given.keyId}</dd>
				<dt>Secret</dt>
				<dd class="mono">{given.secret}</dd>
			</dl>
		</div>
	{/if}
	{#if programs.length > 0}
		<ul>
			{#each programs as { id, name, address, keyId, madeAt } (id)}
				<li>
					<div>
						<strong>{name}</strong>
						<p>{address === '' ? 'It asks, and is not called.' : `Called at ${address}`}</p>
						<p class="quiet">Signs as <span class="mono">{keyId}</span>; its secret is of {showDay(madeAt)}</p>
					</div>
					<form method="POST" use:enhance>
						<input type="hidden" name="program" value={id} />
						<button class="btn plain" formaction="?/renewProgram">New secret</button>
						<button class="btn plain" formaction="?/removeProgram">Remove</button>
					</form>
				</li>
			{/each}
		</ul>
	{/if}
	<form class="add" method="POST" action="?/addProgram" use:enhance>
		<label for="program-name">Add a program, called</label>
		<input class="field" id="program-name" name="name" maxlength="60" required value={refused?.name ?? ''} />
		<label for="program-address">Its address, where routines call it</label>
		<input
			class="field"
			id="program-address"
			name="address"
			placeholder="https://orders.varrow.example/in; blank if it only asks"
			value={refused?.address ?? ''}
		/>
		{#if refused}<p class="says-wrong" role="alert">{refused.says}</p>{/if}
		<button class="btn">Add it and show its secret</button>
	</form>
</section>

<style>
	section {
		display: grid;
		justify-items: start;
		gap: 0.5rem;
		margin-top: 2rem;
		padding-top: 1rem;
		border-top: 1px solid var(--zinc-3);
	}
	h2 {
		margin: 0;
	}
	.given {
		padding: 0.6rem 0.9rem;
		background: var(--marigold-wash);
		border-left: 4px solid var(--marigold);
	}
	.given p {
		margin: 0 0 0.4rem;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.2rem 1rem;
		margin: 0;
	}
	dd {
		margin: 0;
		overflow-wrap: anywhere;
		user-select: all;
	}
	ul {
		width: 100%;
		margin: 0;
		padding: 0;
		list-style: none;
		border-top: 1px solid var(--pitch);
	}
	li {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: start;
		gap: 0.3rem 1rem;
		padding: 0.6rem 0;
		border-bottom: 1px solid var(--zinc-3);
	}
	li p {
		margin: 0;
		overflow-wrap: anywhere;
	}
	.add {
		display: grid;
		justify-items: start;
		gap: 0.3rem;
		width: 100%;
	}
	.add label {
		font-weight: 600;
		margin-top: 0.4rem;
	}
	.add input {
		width: min(100%, 30rem);
	}
</style>
