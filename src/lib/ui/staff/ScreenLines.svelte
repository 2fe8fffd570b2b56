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

	let pointed = ''

	/** The innermost line that the pointer is over; those that hold it hear of it too, and leave it. */
	function point(event: PointerEvent, id: string) {
		event.stopPropagation()
		if (page.lookingAs === null || pointed === id) return
		pointed = id
		tellBench({ tinShedLine: id })
	}
</script>

{#snippet stack(lines: readonly ShownLine[])}
	{#each lines as line (line.id)}
		{@const Shown = components[lookOfLine(line)]}
		<!-- Pointing at a thing in the Lookout marks its line on the Bench; the lines themselves are reached by keyboard there. -->
		<!-- svelte-ignore a11y_no_static_element_interactions -->
		<div data-line={line.id} onpointerover={(event) => point(event, line.id)}>
			<Shown {line} {path} base={page.base} {from} row={page.row} {selected} inner={stack} />
		</div>
	{/each}
{/snippet}

{@render stack(screen.lines)}
