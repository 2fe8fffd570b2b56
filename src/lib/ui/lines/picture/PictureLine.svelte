<script lang="ts">
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import type { AppBase, ShownLine } from '$lib/core/requests/screens.ts'

	type Props = { line: Extract<ShownLine, { kind: 'picture' }>; base: AppBase }

	let { line, base }: Props = $props()
</script>

<figure style:max-width={line.width === null ? null : `calc(${line.width}px + 2.4rem)`}>
	<img src={appFileAddress(line.sha, base)} alt={line.says} loading="lazy" decoding="async" />
	{#if line.caption}<figcaption>{line.caption}</figcaption>{/if}
</figure>

<style>
	figure {
		margin: 0;
		padding: 0.6rem 1.2rem;
	}
	img {
		display: block;
		max-width: 100%;
		height: auto;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
	figcaption {
		margin-top: 0.35rem;
		color: var(--zinc-7);
		font-size: 0.92rem;
	}
</style>
