<script lang="ts">
	/** The app as a file: saved for keeping or for version control, and brought back in after a look at what that would change. */
	import type { ComparedDocument } from '$lib/core/requests/bench.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { ask, send } from '../send.ts'
	import StaysBehind from './StaysBehind.svelte'
	import Differences from './Differences.svelte'
	import type { DraftState } from './draft.svelte.ts'

	let { draft }: { draft: DraftState } = $props()

	let given = $state.raw<(ComparedDocument & { readonly name: string }) | undefined>()
	let busy = $state(false)
	let said = $state.raw({ text: '', wrong: false })

	const path = $derived(`/bench/${draft.app}/document` as const)

	async function choose(input: HTMLInputElement) {
		const [file] = input.files ?? []
		if (!file) return
		busy = true
		given = undefined
		said = { text: '', wrong: false }
		const answer = await send('POST', path, { kind: 'compare', text: await file.text() })
		busy = false
		input.value = ''
		if (!answer.ok) return void (said = { text: answer.refusal.message, wrong: true })
		const { value } = answer
		if (value.parts.length === 0) said = { text: `${file.name} says what the draft says.`, wrong: false }
		else given = { ...value, name: file.name }
	}

	let behind = $state.raw<readonly string[] | undefined>()

	async function saveBundle() {
		busy = true
		behind = undefined
		said = { text: '', wrong: false }
		const answer = await ask(`/bench/${draft.app}/bundle`)
		busy = false
		if (!answer.ok) return void (said = { text: answer.refusal.message, wrong: true })
		const { leftOut, ...bundle } = answer.value
		behind = leftOut
		const rows = bundle.tables.reduce((sum, table) => sum + table.rows.length, 0)
		saveAs(`${draft.document.name}.bundle.json`, { $schema: `${location.origin}/schema/bundle.json`, ...bundle })
		said = { text: `Saved with ${countOf(bundle.tables.length, 'table')} and ${countOf(rows, 'row')}.`, wrong: false }
	}

	function saveAs(name: string, value: unknown) {
		const link = document.createElement('a')
		link.href = URL.createObjectURL(new Blob([`${JSON.stringify(value, null, '\t')}\n`], { type: 'application/json' }))
		link.download = name
		link.click()
		URL.revokeObjectURL(link.href)
	}

	/** As one change of the draft, which can be undone as any other. */
	function put() {
		if (!given) return
		draft.change(given.document)
		said = { text: `The draft says now what ${given.name} says.`, wrong: false }
		given = undefined
	}
</script>

<section>
	<h2>The app as a file</h2>
	<p class="quiet">
		Screens, routines and sign-offs as JSON, by the <a href="/schema/app.json">published schema</a>; no row and no line
		of access is in it.
	</p>
	<div class="ways">
		<a class="btn" href={path} download>Save the draft as a file</a>
		<label class="btn"
			>Bring a file in…<input
				class="visually-hidden"
				type="file"
				accept=".json,application/json"
				disabled={busy}
				onchange={(event) => choose(event.currentTarget)}
			/></label
		>
	</div>
	{#if given}
		<p>Putting <strong>{given.name}</strong> in would change this of the draft:</p>
		<Differences parts={given.parts} />
		<div class="ways">
			<button class="btn main" disabled={busy} onclick={put}>Put it into the draft</button>
			<button class="btn" onclick={() => (given = undefined)}>Leave the draft as it is</button>
		</div>
	{/if}
	<p class="quiet">
		A <a href="/schema/bundle.json">bundle</a> takes along the tables of the draft that you keep, with their rows and lines
		of access, for another workspace. People never go with it. It is brought in where an app is started.
	</p>
	<div class="ways">
		<button class="btn" disabled={busy} onclick={saveBundle}>Save it with its tables, as a bundle</button>
	</div>
	{#if behind && behind.length > 0}
		<p>What stays behind:</p>
		<StaysBehind says={behind} />
	{/if}
	{#if said.text}<p class:says-wrong={said.wrong} role={said.wrong ? 'alert' : 'status'}>{said.text}</p>{/if}
</section>

<style>
	section {
		display: grid;
		gap: 0.7rem;
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 0.8rem;
	}
	label:focus-within {
		outline: 3px solid var(--marigold);
	}
</style>
