/** Slots that name one thing: a table, a role, a screen; or what a button opens or runs. */
import type { Vocabulary } from '../vocabulary.ts'
import type { SlotPlace, Reading, SlotEntry } from './entry.ts'
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
	what: 'table'
})
const roleNames = ({ vocabulary }: SlotPlace): Names<number> => ({ list: vocabulary.roles, what: 'role' })
const screenNames = ({ vocabulary }: SlotPlace): Names<string> => ({ list: titled(vocabulary), what: 'screen' })
const routineNames = ({ vocabulary }: SlotPlace): Names<string> => ({ list: vocabulary.routines, what: 'routine' })

const titled = ({ screens }: Vocabulary) => screens.map(({ id, title }) => ({ id, name: title }))

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

export const table: SlotEntry<number> = { ...oneName(tableNames), tables: (id) => [id] }
export const role = oneName(roleNames)
export const screen = oneName(screenNames)

export const roles: SlotEntry<readonly number[]> = {
	isFormula: false,
	print: (ids, place) =>
		joinWords(
			ids.map((id) => printName(roleNames(place), id)),
			'and'
		),
	printExact: (ids, place) => printExactNames(roleNames(place), ids),
	read: (text, place) => readEach(text.split(/\s*,\s*|\s+and\s+/), (name) => readName(roleNames(place), name)),
	readExact: (text, place) => readExactNames(roleNames(place), text)
}

/** What a button does. */
export type Does =
	{ readonly kind: 'open'; readonly screen: string } | { readonly kind: 'run'; readonly routine: string }

export const does: SlotEntry<Does> = {
	isFormula: false,
	print: (value, place) =>
		value.kind === 'open'
			? `opens ${printName(screenNames(place), value.screen)}`
			: `runs ${printName(routineNames(place), value.routine)}`,
	printExact: (value, place) =>
		value.kind === 'open'
			? `opens ${printExactName(screenNames(place), value.screen)}`
			: `runs ${printExactName(routineNames(place), value.routine)}`,
	read: (text, place) => readDoes(text, place, readName),
	readExact: (text, place) => readDoes(text, place, readExactName),
	choices: (place) => [
		...screenNames(place).list.map(({ id, name }) => ({
			value: { kind: 'open', screen: id } as const,
			text: `opens ${name}`
		})),
		...routineNames(place).list.map(({ id, name }) => ({
			value: { kind: 'run', routine: id } as const,
			text: `runs ${name}`
		}))
	]
}

function readDoes(
	text: string,
	place: SlotPlace,
	read: (names: Names<string>, text: string) => Reading<string>
): Reading<Does> {
	const [, verb = '', name = text] = /^(opens?|runs?)\s+(.+)$/is.exec(text) ?? []
	if (verb.toLowerCase().startsWith('run')) {
		const routine = read(routineNames(place), name)
		return 'message' in routine ? routine : { value: { kind: 'run', routine: routine.value } }
	}
	const found = read(screenNames(place), name)
	return 'message' in found ? found : { value: { kind: 'open', screen: found.value } }
}
