/** Brings further sheets of a file in, one after the other, each as proposed, into a table of its own. */
import { ask, send } from '../send.ts'
import { openDoubts, proposePlan, settlePlan } from './import-plan.ts'

export interface SheetBroughtIn {
	readonly sheet: string
	/** The new table and how many rows it got, or why there is none. */
	readonly outcome: { readonly table: number; readonly rows: number } | { readonly message: string }
}

const ASKED_EVERY_MS = 250

/** @param taken names that tables have already, in lower case */
export async function bringSheetsIn(
	importId: string,
	sheets: readonly string[],
	taken: ReadonlySet<string>,
	onDone: (done: SheetBroughtIn) => void
): Promise<void> {
	const path = `/bench/imports/${importId}` as const
	for (const [i, sheet] of sheets.entries()) {
		const looked = await send('POST', path, { kind: 'inspect', sheet })
		if (!looked.ok) {
			onDone({ sheet, outcome: { message: looked.refusal.message } })
			continue
		}
		const plan = proposePlan(looked.value, looked.value.file)
		const tableName = taken.has(plan.tableName.toLowerCase())
			? `${plan.tableName} from ${looked.value.file}`
			: plan.tableName
		const settled = settlePlan({ ...plan, tableName: tableName.slice(0, 80) }, openDoubts(looked.value, plan), {})
		const begun = await send('POST', path, { kind: 'start', plan: settled, more: i < sheets.length - 1 })
		onDone({ sheet, outcome: begun.ok ? await untilIn(path) : { message: begun.refusal.message } })
	}
}

async function untilIn(path: `/bench/imports/${string}`): Promise<SheetBroughtIn['outcome']> {
	for (;;) {
		const state = await ask(path)
		if (!state.ok) return { message: state.refusal.message }
		if (state.value.state === 'done') return { table: state.value.table, rows: state.value.rows }
		if (state.value.state === 'failed') return { message: state.value.message }
		await new Promise((resolve) => setTimeout(resolve, ASKED_EVERY_MS))
	}
}
