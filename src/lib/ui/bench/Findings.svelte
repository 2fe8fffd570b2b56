<script lang="ts">
	/** What the check before a release found: first what keeps it back, each with the way to where it is mended. */
	import type { Finding, Spot } from '$lib/core/document/findings.ts'

	type Props = { findings: readonly Finding[]; app: number }

	let { findings, app }: Props = $props()

	const inOrder = $derived([
		...findings.filter(({ weight }) => weight === 'mistake'),
		...findings.filter(({ weight }) => weight === 'remark')
	])

	function leadsTo({ bay, screen, routine, line, table }: Spot): string {
		const asked = Object.entries({ screen, routine, line, table }).flatMap(([name, value]) =>
			value === undefined ? [] : [[name, String(value)]]
		)
		return `/bench/${app}/${bay}${asked.length > 0 ? `?${new URLSearchParams(asked)}` : ''}`
	}
</script>

<ul>
	{#each inOrder as { weight, place, message, spot }, i (i)}
		<li>
			{#if weight === 'mistake'}<span class="stamp bad">mend</span>{:else}<span class="stamp look">look</span>{/if}
			<span
				>{#if spot}<a href={leadsTo(spot)}>{place}</a>{:else}<strong>{place}</strong>{/if}<br />{message}</span
			>
		</li>
	{/each}
</ul>

<style>
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	li {
		display: grid;
		grid-template-columns: 4rem minmax(0, 1fr);
		align-items: start;
		justify-items: start;
		column-gap: 0.7rem;
		padding: 0.5rem 0;
		border-top: 1px solid var(--zinc-3);
	}
	a {
		font-weight: 650;
	}
</style>
