<script lang="ts">
	/** The lines of one screen, one under the other. In the Lookout each says which line of the Bench it is. */
	import type { ScreenPath, ShownLine, ShownScreen, StaffPage } from '$lib/core/requests/screens.ts'
	import { tellBench } from '../lookout/tell-bench.ts'
	import { lookOfLine, type LineComponents } from '../lines/line-component.ts'

	type Props = {
		screen: NonNullable<ShownScreen['screen']>
		page: StaffPage
		components: LineComponents
		/** The row that is open beside this list. */
		selected: string | null
	}

	let { screen, page, components, selected }: Props = $props()

	const path = $derived<ScreenPath>(`${page.base}/${screen.id}`)

	/** Where one comes back to from what opens here: from a row's screen to the list that it was opened from. */
	const from = $derived((page.row === null ? null : page.from) ?? screen.id)

	/** What narrows down others stands side by side, as far as there is room, and so do figures; each other line for itself. */
	function abreast(lines: readonly ShownLine[]): ShownLine[][] {
		return lines.reduce<ShownLine[][]>((runs, line) => {
			const run = runs.at(-1)
			const way = wayOf(line)
			if (way !== undefined && run?.[0] && wayOf(run[0]) === way) run.push(line)
			else runs.push([line])
			return runs
		}, [])
	}

	function wayOf(line: ShownLine | undefined): 'filters' | 'figures' | undefined {
		if (line?.kind === 'figure') return 'figures'
		return line?.kind === 'choose' || line?.kind === 'search' ? 'filters' : undefined
	}

	let pointed = ''

	/** The innermost line that the pointer is over; those that hold it hear of it too, and leave it. */
	function point(event: PointerEvent, id: string) {
		event.stopPropagation()
		if (page.lookingAs === null || pointed === id) return
		pointed = id
		tellBench({ tinShedLine: id })
	}
</script>

{#snippet one(line: ShownLine)}
	{@const Shown = components[lookOfLine(line, selected !== null)]}
	<!-- Pointing at a thing in the Lookout marks its line on the Bench; the lines themselves are reached by keyboard there. -->
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div data-line={line.id} onpointerover={(event) => point(event, line.id)}>
		<Shown {line} {path} base={page.base} {from} row={page.row} {selected} inner={stack} />
	</div>
{/snippet}

{#snippet stack(lines: readonly ShownLine[])}
	{#each abreast(lines) as run (run[0]?.id)}
		{#if run.length > 1}<div class={wayOf(run[0])}>
				{#each run as line (line.id)}{@render one(line)}{/each}
			</div>
		{:else if run[0]}{@render one(run[0])}{/if}
	{/each}
{/snippet}

{@render stack(screen.lines)}

<style>
	.filters {
		display: flex;
		flex-wrap: wrap;
		align-items: start;
	}
	/* One ruled band. */
	.figures {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(17rem, 100%), 1fr));
		border-block: 1px solid var(--pitch);
		margin: 0.4rem 0;
	}
	.figures > div {
		box-shadow: 1px 0 0 var(--zinc-3);
	}
</style>
