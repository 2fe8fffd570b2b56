/** Brings further sheets of a file in, one after the other, each as proposed, into a table of its own. */
import { ask, send } from '../send.ts'
import { openDoubts, proposePlan, settlePlan } from './import-plan.ts'

/** Where a file that was given in is asked about and told what to do. */
export type SourceAddress = `/bench/imports/${string}`

export interface SheetBroughtIn {
	readonly sheet: string
	/** The new table and how many rows it got, or why there is none. */
	readonly outcome: { readonly table: number; readonly rows: number } | { readonly message: string }
}

const ASKED_EVERY_MS = 250

/** @param taken names that tables have already, in lower case */
export async function bringSheetsIn(
	address: SourceAddress,
	sheets: readonly string[],
	taken: readonly string[],
	onDone: (done: SheetBroughtIn) => void
): Promise<void> {
	for (const [i, sheet] of sheets.entries()) {
		const looked = await send('POST', address, { kind: 'inspect', sheet })
		if (!looked.ok) {
			onDone({ sheet, outcome: { message: looked.refusal.message } })
			continue
		}
		const plan = proposePlan(looked.value, looked.value.file)
		const tableName = taken.includes(plan.tableName.toLowerCase())
			? `${plan.tableName} from ${looked.value.file}`
			: plan.tableName
		const settled = settlePlan({ ...plan, tableName: tableName.slice(0, 80) }, openDoubts(looked.value, plan), {})
		const begun = await send('POST', address, { kind: 'start', plan: settled, more: i < sheets.length - 1 })
		onDone({ sheet, outcome: begun.ok ? await untilIn(address) : { message: begun.refusal.message } })
	}
}

async function untilIn(address: SourceAddress): Promise<SheetBroughtIn['outcome']> {
	for (;;) {
		const state = await ask(address)
		if (!state.ok) return { message: state.refusal.message }
		if (state.value.state === 'done') return { table: state.value.table, rows: state.value.rows }
		if (state.value.state === 'failed') return { message: state.value.message }
		await new Promise((resolve) => setTimeout(resolve, ASKED_EVERY_MS))
	}
}
