import type { ShownList } from '$lib/core/requests/screens.ts'
import { besideList, withChosen } from '../screen-address.ts'

/** Where a tap on a row leads: to the screen that it opens, or to the same one with this row chosen. */
export function addressOf(
	{ opens, holds }: Pick<ShownList, 'opens' | 'holds'>,
	row: string,
	{ url, base, from }: { url: URL; base: string; from: string }
): string | undefined {
	if (opens !== null) return besideList(url, { to: `${base}/${opens}`, row, from })
	return holds === '' ? undefined : withChosen(url, holds, row)
}
