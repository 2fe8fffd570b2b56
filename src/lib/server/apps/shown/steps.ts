import type { LineOf } from '$lib/core/app/lines/all.ts'
import { answersOf, asForm, asksOf, type AskLine } from '$lib/core/app/lines/steps.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { ShownAnswer, ShownAsk } from '$lib/core/requests/screens.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { PIECE } from '$lib/core/text/pieces.ts'
import { isFor } from '../for-whom.ts'
import { form } from './form.ts'
import { asText } from './text.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type StepsLine = LineOf<'steps'>

export const steps: ShownAs<StepsLine> = {
	holdsSomething: (line, view) => form.holdsSomething(asForm(line, tableOf(view, line.table)), view),
	show(line, view) {
		const table = tableOf(view, line.table)
		// What one person is asked is what a form would ask them.
		const [shown] = form.show(asForm(line, table), view)
		if (!table || shown?.kind !== 'form') return []
		const asked = shown.pages.flatMap(({ parts }) => parts.map(({ id }) => id))
		const asks = asksOf(line).flatMap((each) => (asked.includes(each.id) ? askOf(each, table, view) : []))
		return asks.length === 0 ? [] : [{ id: line.id, kind: 'steps', form: shown, asks, pause: line.pause }]
	}
}

function askOf(line: AskLine, table: Table, view: View): ShownAsk[] {
	const column = findColumn(table, line.column)
	if (!column) return []
	const question = line.question.replace(PIECE, (_all, formula: string | undefined) =>
		formula === undefined ? '{' : asText(formula, view)
	)
	const { id, skips } = line
	return [{ id, question: question || column.name, canSkip: skips !== null, answers: answersFor(line, column, view) }]
}

/** Those that its builder wrote; or else what can be chosen, where that is little. */
function answersFor(line: AskLine, column: Column, view: View): ShownAnswer[] {
	const written = answersOf(line).filter((each) => isFor(each, view.standing))
	if (written.length > 0)
		return written.flatMap(({ value, label, tone, picture }) => {
			const read = findKind(column.type)?.read(value, column, TYPED)
			if (!read?.ok) return []
			const says = label || value
			return [{ value: read.value, label: says, tone, picture: picture && { sha: picture.sha, says } }]
		})
	const plain = (value: string | boolean, label: string) => ({ value, label, tone: null, picture: null })
	if (column.type === 'yes/no') return [plain(true, 'Yes'), plain(false, 'No')]
	return column.type === 'choice' ? (column.choices ?? []).map((choice) => plain(choice, choice)) : []
}
