/**
 * Lines for a table that has none, from what its columns point to: whose address stands in a row, whom it names, which harbour it
 * has in common with whoever looks. The narrowest first; last, every row for a role that the builder chooses.
 */
import { printName } from '../formula/check/rename.ts'
import type { Catalogue, Column, Table } from '../model/table.ts'

export interface ProposedLine {
	/** What it is good for, in a few words. */
	readonly says: string
	/** Which rows, as a formula; blank for every row. */
	readonly where: string
	/** Whether the builder must still choose a role. */
	readonly asksRole: boolean
}

const MOST = 4

/**
 * The lines of access that fit a new table, the likeliest first; the last one is every row, for a role still to be
 * chosen.
 */
export function proposeLines(table: Table, { people }: Catalogue): ProposedLine[] {
	const own = table.columns.flatMap((column) => [...ownedBy(column, people), ...sharedWith(column, people)])
	const all: ProposedLine = { says: 'Every row, for a role of your choice', where: '', asksRole: true }
	return [...own.slice(0, MOST - 1), all]
}

/** Rows that name whoever looks: by an address like theirs, or by a reference to them. */
function ownedBy(column: Column, people: Table): ProposedLine[] {
	const name = printName(column.name)
	const says = `Their own rows, by ${column.name}`
	if (column.to === people.id) return [{ says, where: `${name} = me`, asksRole: false }]
	if (column.type !== 'email') return []
	const address = people.columns.find((each) => each.type === 'email')
	return address ? [{ says, where: `${name} = me.${printName(address.name)}`, asksRole: false }] : []
}

/** Rows that point to what whoever looks points to as well: their harbour's. */
function sharedWith(column: Column, people: Table): ProposedLine[] {
	if (column.type !== 'reference' || column.to === people.id) return []
	const theirs = people.columns.find((each) => each.type === 'reference' && each.to === column.to)
	if (!theirs) return []
	const where = `${printName(column.name)} = me.${printName(theirs.name)}`
	return [{ says: `The rows of their ${theirs.name.toLowerCase()}`, where, asksRole: false }]
}
