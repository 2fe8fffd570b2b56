import type { LineOf } from '$lib/core/app/lines/all.ts'
import { unaskedOf } from '$lib/core/app/lines/form.ts'
import type { ShownEntry, ShownFormPart, ShownItems, ShownLine } from '$lib/core/requests/screens.ts'
import type { WireCell } from '$lib/core/query/wire.ts'
import type { Table } from '$lib/core/model/table.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { cellsOf, changedRow, type ChangedRow } from '../forms/changed-row.ts'
import { partsIn, shapeOf, type AskedEntry, type FormPart } from '../forms/form-shape.ts'
import { startsOf } from '../forms/form-starts.ts'
import { judgeForm } from '../forms/judge-form.ts'
import { typedRow } from '../forms/typed-row.ts'
import type { Filling, Reach } from '../forms/work-out-typed.ts'
import { offeredScreen } from './button.ts'
import { divider, heading } from './plain.ts'
import { text } from './text.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

export const form: ShownAs<LineOf<'form'>> = {
	holdsSomething(line, view) {
		const table = tableOf(view, line.table)
		const { rights } = view.standing
		const verbs = line.changes === null ? (['add'] as const) : (['add', 'change'] as const)
		return table !== undefined && verbs.some((verb) => rights.mayPossibly(verb, table))
	},
	show(line, view) {
		const { store, standing, request } = view
		if (line.of !== null && request.row === undefined) return []
		const changed = changedRow(store, line, request)
		// A row that is not theirs to see is no new one.
		if (line.changes !== null && request.row !== undefined && !changed) return []
		const table = tableOf(view, line.table)
		if (!table || (line.changes !== null && !changed && unaskedOf(line, table).length > 0)) return []
		const shape = shapeOf(line, store.workspace().catalogue, standing, changed)
		if (!shape || shape.pages.length === 0) return []
		const filling: Filling = {
			store,
			standing,
			here: view.here,
			context: { actor: request.actor, now: request.now, through: 'form' }
		}
		const of = line.of === null ? [] : [{ column: line.of, value: { id: request.row ?? '' } }]
		const there = changed ? cellsOf(changed) : of
		const own = typedRow(store, 'o', { table, cells: there, context: filling.context })
		const place = { view, filling, table, changed, reach: { tables: [table], rows: [own] } }
		const { id, then } = line
		return [
			{
				opens: line.opens === null ? null : (offeredScreen(line.opens, view) ?? null),
				...{
					id,
					kind: 'form',
					table: table.id,
					title: table.name,
					then,
					isOfRow: line.of !== null || changed !== undefined,
					changes: changed !== undefined
				},
				pages: shape.pages.map((page) => ({ ...page, parts: showParts(page.parts, place) })),
				verdict: partsIn(shape).some(isJudged) ? judgeForm(filling, shape, { cells: there, items: {} }) : null
			}
		]
	}
}

interface Place {
	readonly view: View
	readonly filling: Filling
	readonly table: Table
	/** The row that is changed: its entries begin with what stands there. */
	readonly changed?: ChangedRow | undefined
	readonly reach: Reach
}

/** Whether the server has to be asked again as one types. */
function isJudged(part: FormPart): boolean {
	if (part.kind === 'items') return part.parts.some(isJudged)
	if (part.kind !== 'entry') return part.kind === 'shown'
	return [part.line?.when, part.line?.must, part.line?.unless].some((text) => (text ?? '').trim() !== '')
}

function showParts(parts: readonly FormPart[], place: Place): ShownFormPart[] {
	const starts = startsOf(place.filling, parts, place.reach)
	return parts.flatMap((part): ShownFormPart[] => {
		switch (part.kind) {
			case 'entry':
				return showEntry(part, place.table, { changed: place.changed, starts })
			case 'shown':
				return [{ id: part.id, kind: 'shown', label: part.label }]
			case 'items':
				return [showItems(part, place)]
			case 'heading':
				return heading.show(part, place.view).filter(isPlain)
			case 'text':
				return text.show(part, place.view).filter(isPlain)
			case 'divider':
				return divider.show(part, place.view).filter(isPlain)
		}
	})
}

function showItems({ id, table, least, parts }: FormPart & { kind: 'items' }, place: Place): ShownItems {
	const { view, filling, reach } = place
	const blank = typedRow(view.store, 'r', { table, cells: [], context: filling.context })
	const inner = {
		...place,
		table,
		changed: undefined,
		reach: { tables: [...reach.tables, table], rows: [...reach.rows, blank] }
	}
	const shown = showParts(parts, inner).filter((part) => part.kind === 'entry' || part.kind === 'shown')
	return { id, kind: 'items', title: table.name, least, parts: shown }
}

function showEntry(
	{ id, column, line }: AskedEntry,
	table: Table,
	{ changed, starts }: { changed: ChangedRow | undefined; starts: ReadonlyMap<string, WireCell> }
): ShownEntry[] {
	return describeColumns(table, [column.id]).map((described) => ({
		...{ id, kind: 'entry', column: described, help: line?.help ?? '', sample: line?.sample ?? '' },
		starts: (changed ? changed.cells.get(column.id) : starts.get(id)) ?? null,
		isAbreast: line !== undefined && line.stands !== null,
		remembers: line !== undefined && line.remembers !== null,
		isNarrowed: line !== undefined && line.from.trim() !== ''
	}))
}

function isPlain(line: ShownLine): line is Extract<ShownLine, { kind: 'heading' | 'text' | 'divider' }> {
	return line.kind === 'heading' || line.kind === 'text' || line.kind === 'divider'
}
