/** Writing to an address that belongs to nobody here: what leaves so is read as the role that the routine acts as, and is said before a release. */
import { mistake, remark, type Found } from '../document/findings.ts'
import { findColumn, type Column } from '../model/table.ts'
import type { Slot } from '../sentence/types.ts'
import type { AroundStep } from './step-entry.ts'

/** The clause by which a message, or an ask, may go outside. */
export const TO_OUTSIDE: Slot = {
	key: 'outside',
	type: 'outside',
	title: 'Whether it may go outside',
	before: ', also to ',
	clause: 'also to an address outside'
}

/** What the words of a step that may go outside need, and what is to be looked at. */
export function checkOutside(
	{ to, outside }: { readonly to: string; readonly outside?: string | null | undefined },
	{ actsAsRole }: AroundStep
): Found[] {
	if (!outside) return []
	return [
		...(actsAsRole
			? []
			: mistake('It may go outside: say at the start as which role it acts. What leaves is read as that role.')),
		...remark(`Its words may leave the workspace, for whoever ${to} names, with what the role sees in them.`)
	]
}

/** What anybody can fill in without a page of ours behind it. */
const FILLED_OUTSIDE: ReadonlySet<Column['type']> = new Set<Column['type']>([
	...(['text', 'long text', 'code', 'email', 'phone'] as const),
	...(['decimal', 'whole number', 'money', 'percent'] as const),
	...(['date', 'yes/no', 'choice'] as const)
])

/** What is asked of somebody outside. */
export function checkAskedOutside(
	{ columns, outside }: { readonly columns: readonly number[]; readonly outside?: string | null | undefined },
	{ table }: AroundStep
): Found[] {
	if (!outside || !table) return []
	const named = columns.flatMap((id) => findColumn(table, id) ?? [])
	return named.flatMap((column) =>
		FILLED_OUTSIDE.has(column.type)
			? remark(`${column.name} can be seen and filled in by whoever has the link.`)
			: mistake(`${column.name} cannot be filled in from outside. Ask for it in words, or ask somebody here.`)
	)
}
