/** Whom the Lookout begins with: people who see something, of different roles where there are, builders and stewards last. */
import type { WhoSees } from '$lib/core/requests/access.ts'

export interface Looked {
	readonly person: number
	readonly name: string
	readonly roles: readonly string[]
}

export function chooseLookers(people: readonly Looked[], { people: seeing }: WhoSees): readonly (Looked | undefined)[] {
	const sees = new Map(seeing.map(({ person, tables }) => [person, tables.length]))
	const isStaff = ({ roles }: Looked) => !roles.some((role) => role === 'Builders' || role === 'Stewards')
	const rank = (each: Looked) => (sees.get(each.person) ? 2 : 0) + (isStaff(each) ? 1 : 0)
	const tablesOf = (each: Looked) => sees.get(each.person) ?? 0
	const ordered = people.toSorted((a, b) => rank(b) - rank(a) || tablesOf(b) - tablesOf(a))
	const [first] = ordered
	if (!first) return [undefined, undefined]
	const others = ordered.filter((each) => each !== first && rank(each) === rank(ordered[1] ?? first))
	// What one sees is best held against what somebody sees otherwise.
	const tables = (each: Looked) => seeing.find(({ person }) => person === each.person)?.tables.join() ?? ''
	const second =
		others.find((each) => each.roles[0] !== first.roles[0] && tables(each) !== tables(first)) ??
		others.find((each) => each.roles[0] !== first.roles[0]) ??
		others[0]
	return [first, second]
}

/** Why somebody sees nothing of a draft: its tables, of which no line lets them see a row. Undefined if they see something. */
export function whyNothing(person: number, { people, tables }: WhoSees): WhoSees['tables'] | undefined {
	const seen = people.find((each) => each.person === person)
	return seen && seen.tables.length === 0 ? tables : undefined
}
