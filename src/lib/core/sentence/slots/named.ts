/** Slots that name one thing: a table, a role, a screen. */
import type { Vocabulary } from '../vocabulary.ts'
import type { SlotPlace, SlotEntry } from './entry.ts'
import {
	joinWords,
	printExactName,
	printExactNames,
	printName,
	readEach,
	readExactName,
	readExactNames,
	readName,
	type Names
} from './names.ts'

export const tableNames = ({ vocabulary }: Pick<SlotPlace, 'vocabulary'>): Names<number> => ({
	list: vocabulary.tables,
	what: 'table',
	unseen: vocabulary.unseen?.tables
})
const roleNames = ({ vocabulary }: SlotPlace): Names<number> => ({ list: vocabulary.roles, what: 'role' })
export const screenNames = ({ vocabulary }: SlotPlace): Names<string> => ({
	list: titled(vocabulary, (stands) => stands !== SHARED),
	what: 'screen'
})
const sharedNames = ({ vocabulary }: SlotPlace): Names<string> => ({
	list: titled(vocabulary, (stands) => stands === SHARED),
	what: 'group of shared lines'
})
export const routineNames = ({ vocabulary }: SlotPlace): Names<string> => ({
	list: vocabulary.routines,
	what: 'routine'
})

const signoffNames = ({ vocabulary }: SlotPlace): Names<string> => ({ list: vocabulary.signoffs, what: 'sign-off' })

/** As a screen says of itself that it is none. */
const SHARED = 'only as lines of other screens'

const titled = ({ screens }: Vocabulary, isMeant: (stands: string | null) => boolean) =>
	screens.flatMap(({ id, title, stands = null }) => (isMeant(stands) ? [{ id, name: title }] : []))

function oneName<Id extends number | string>(namesAt: (place: SlotPlace) => Names<Id>): SlotEntry<Id> {
	return {
		isFormula: false,
		print: (id, place) => printName(namesAt(place), id),
		printExact: (id, place) => printExactName(namesAt(place), id),
		read: (text, place) => readName(namesAt(place), text),
		readExact: (text, place) => readExactName(namesAt(place), text),
		choices: (place) => namesAt(place).list.map(({ id, name }) => ({ value: id, text: name }))
	}
}

export const table: SlotEntry<number> = {
	...oneName(tableNames),
	tables: (id) => [id],
	mapTables: (id, map) => map(id)
}
export const role: SlotEntry<number> = { ...oneName(roleNames), mapRoles: (id, map) => map(id) }
export const screen = oneName(screenNames)
export const routine = oneName(routineNames)
export const signoff = oneName(signoffNames)
export const sharedLines = oneName(sharedNames)

export const roles: SlotEntry<readonly number[]> = {
	isFormula: false,
	print: (ids, place) =>
		joinWords(
			ids.map((id) => printName(roleNames(place), id)),
			'and'
		),
	printExact: (ids, place) => printExactNames(roleNames(place), ids),
	read: (text, place) => readEach(text.split(/\s*,\s*|\s+and\s+/), (name) => readName(roleNames(place), name)),
	readExact: (text, place) => readExactNames(roleNames(place), text),
	mapRoles: (ids, map) => ids.map(map)
}
