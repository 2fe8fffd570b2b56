<script lang="ts">
	/** One thing that a form asks for, where it is asked now. */
	import type { ShownEntry } from '$lib/core/requests/screens.ts'
	import type { Option } from '$lib/core/requests/rows.ts'
	import CellField from '../../cells/CellField.svelte'
	import { optionsAt } from '../../cells/options.ts'
	import { send } from '../../send.ts'
	import type { RowPlace } from './form-parts.ts'
	import type { FormState } from './form-state.svelte.ts'

	type Props = {
		form: FormState
		entry: ShownEntry
		place?: RowPlace
		base: string
		onchange: () => void
	}

	let { form, entry, place, base, onchange }: Props = $props()

	const options = $derived(entry.isNarrowed ? (_table: number, starts: string) => narrowed(starts) : optionsAt(base))

	/** Which rows there are depends on what was filled in: the server says, as for whoever fills it in. */
	async function narrowed(starts: string): Promise<readonly Option[]> {
		const { line, typed, place: around } = form.asked()
		const own = form.cellsAt(place)
		const asked = { kind: 'choices', line, ...typed, ...around, entry: entry.id, starts, own } as const
		const answer = await send('POST', `${form.path()}/form`, asked)
		return answer.ok ? answer.value : []
	}
</script>

{#if form.isAsked(entry, place)}
	<CellField
		column={form.columnOf(entry, place)}
		draft={form.draftAt(entry, place)}
		message={form.messageAt(entry, place)}
		help={entry.help}
		sample={entry.sample}
		{options}
		onchange={(draft) => {
			form.change(entry, draft, place)
			onchange()
		}}
	/>
{/if}
