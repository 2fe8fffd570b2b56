<script lang="ts">
	/** For who writes the other program: where it asks, what it sends, and how that is described. */
	import { page } from '$app/state'
	import type { HeldKind } from '$lib/core/formula/check/rename.ts'
	import { takenBy } from '$lib/core/routine/held-values.ts'
	import type { Routine } from '$lib/core/routine/routine.ts'

	type Props = { routine: Routine; app: number; isLive: boolean }

	let { routine, app, isLive }: Props = $props()

	const takes = $derived(takenBy(routine))
	const address = $derived(`${page.url.origin}/request/${app}/${routine.id}`)
	const EXAMPLES = { text: 'SH-12', number: 12, date: '2026-12-01', yesno: true } as const
	const exampleOf = (kind: HeldKind) => ('type' in kind ? EXAMPLES[kind.type] : null)
	const body = $derived(
		JSON.stringify(
			Object.fromEntries(Object.entries(takes).map(([name, kind]) => [name, exampleOf(kind)])),
			undefined,
			2
		)
	)

	/** The describing of it is asked for only here. */
	async function download() {
		const { openApi } = await import('$lib/core/signing/request-values.ts')
		const text = JSON.stringify(openApi({ name: routine.name, address, takes }), undefined, 2)
		const link = document.createElement('a')
		link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
		link.download = `${routine.name}.openapi.json`
		link.click()
		URL.revokeObjectURL(link.href)
	}
</script>

<section aria-labelledby="request">
	<h2 id="request">For the other program</h2>
	<p class="quiet">
		It posts JSON to this address, signed by the key that a steward gave it (HTTP Message Signatures, RFC 9421, <span
			class="mono">hmac-sha256</span
		>). The same <span class="mono">Idempotency-Key</span> sent again begins nothing more.{isLive
			? ''
			: ' Until this is released, it is answered that nothing is asked for here.'}
	</p>
	<p class="mono address">{address}</p>
	<pre class="mono" aria-label="An example of what it sends">{body}</pre>
	<button class="btn" onclick={download}>Download its description (OpenAPI)</button>
</section>

<style>
	section {
		display: grid;
		justify-items: start;
		gap: 0.5rem;
		padding: 1rem;
		border-top: 1px solid var(--zinc-3);
	}
	h2 {
		margin: 0;
	}
	p {
		margin: 0;
		max-width: 46rem;
	}
	.address {
		overflow-wrap: anywhere;
		user-select: all;
	}
	pre {
		margin: 0;
		padding: 0.6rem 0.9rem;
		background: var(--limewash);
		border: 1px solid var(--zinc-3);
		white-space: pre-wrap;
	}
</style>
