import type { Option } from '$lib/core/requests/rows.ts'
import { ask } from '../send.ts'

/** Looks rows up by the start of their name: as oneself, or in the Lookout as whom it shows. */
export function optionsAt(base: string): (table: number, starts: string) => Promise<readonly Option[]> {
	const as = base.startsWith('/as/') ? `&as=${base.slice(4)}` : ''
	return async (table, starts) => {
		const answer = await ask(`/options/${table}?starts=${encodeURIComponent(starts)}${as}`)
		return answer.ok ? answer.value : []
	}
}
