<script lang="ts">
	/** Columns over a scale, each a key that shows its rows or sets what other lines go by; the table behind is one press away. */
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import type { ShownBar } from '$lib/core/requests/shown-rows.ts'
	import { sayMore } from '$lib/core/chart/left-out.ts'
	import ChartFrame from './ChartFrame.svelte'
	import ChartPlot from './ChartPlot.svelte'
	import { setHeld } from './press.ts'

	type Props = { line: Extract<ShownLine, { kind: 'chart' }>; path: ScreenPath; base: AppBase; from: string }

	let { line, path, base, from }: Props = $props()

	let opened = $state<string | undefined>()

	const pressed = $derived(line.bars.find(({ key }) => key === opened))

	function press({ key }: ShownBar) {
		if (line.holds === '') opened = opened === key ? undefined : key
		else setHeld(line, key)
	}
</script>

<ChartFrame
	{...{ line, path, base, from, pressed }}
	notes={sayMore(line.more)}
	isEmpty={line.bars.length === 0}
	draw={async () => (await import('./chart-svg.ts')).chartAsSvg(line)}
>
	{#snippet plot()}
		<ChartPlot {line} opened={line.holds === '' ? (opened ?? null) : line.chosen || null} onpress={press} />
	{/snippet}
	{#snippet table()}
		{#await import('./ChartTable.svelte') then { default: ChartTable }}<ChartTable {line} />{:catch}
			<p class="says-wrong">The table could not be loaded: no signal.</p>
		{/await}
	{/snippet}
</ChartFrame>
