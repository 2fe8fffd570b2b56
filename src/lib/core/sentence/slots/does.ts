/** What a button does: opens a screen, runs a routine, sets what the screen holds, leads to an address, gives a file, copies its link, prints, or begins again. */
import { FILE_FORMATS, type FileFormat } from '../../exchange/file-formats.ts'
import type { SlotPlace, Reading, SlotEntry } from './entry.ts'
import { routineNames, screenNames } from './named.ts'
import { printExactName, printName, readExactName, readName, type Names } from './names.ts'

export type Does =
	| { readonly kind: 'open'; readonly screen: string }
	| { readonly kind: 'run'; readonly routine: string }
	/** An address of the web, of mail or of a phone. */
	| { readonly kind: 'link'; readonly address: string }
	/** Gives this screen what the lines below the button say. */
	| { readonly kind: 'set' }
	/** Copies the link to this screen, with what is chosen on it. */
	| { readonly kind: 'copy link' }
	/** The first list of the screen, as a file. */
	| { readonly kind: 'export'; readonly format: FileFormat }
	| { readonly kind: 'print' }
	/** Goes to the first screen, with nothing chosen or typed. */
	| { readonly kind: 'start over' }

const PRINTS = 'prints this screen'
const STARTS_OVER = 'starts over'
const SETS = 'sets what this screen holds'
const COPIES = 'copies the link to this'
const LEADS = 'leads to '
const EXPORTS = 'gives the list as '

// The record has these keys and no others.
const FORMATS = Object.keys(FILE_FORMATS) as FileFormat[]

type Naming = (names: Names<string>, id: string) => string
type Read = (names: Names<string>, text: string) => Reading<string>

export const does: SlotEntry<Does> = {
	isFormula: false,
	print: (value, place) => say(value, place, printName),
	printExact: (value, place) => say(value, place, printExactName),
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
		})),
		{ value: { kind: 'set' }, text: SETS },
		{ value: { kind: 'copy link' }, text: COPIES },
		...FORMATS.map((format) => ({
			value: { kind: 'export', format } as const,
			text: `${EXPORTS}${FILE_FORMATS[format].words}`
		})),
		{ value: { kind: 'print' }, text: PRINTS },
		{ value: { kind: 'start over' }, text: STARTS_OVER }
	]
}

function say(value: Does, place: SlotPlace, name: Naming): string {
	switch (value.kind) {
		case 'open':
			return `opens ${name(screenNames(place), value.screen)}`
		case 'run':
			return `runs ${name(routineNames(place), value.routine)}`
		case 'link':
			return `${LEADS}${value.address}`
		case 'set':
			return SETS
		case 'copy link':
			return COPIES
		case 'export':
			return `${EXPORTS}${FILE_FORMATS[value.format].words}`
		case 'print':
			return PRINTS
		case 'start over':
			return STARTS_OVER
	}
}

function readDoes(text: string, place: SlotPlace, read: Read): Reading<Does> {
	const said = text.trim().toLowerCase()
	if (said === SETS) return { value: { kind: 'set' } }
	if (said === COPIES) return { value: { kind: 'copy link' } }
	if (said === PRINTS) return { value: { kind: 'print' } }
	if (said === STARTS_OVER) return { value: { kind: 'start over' } }
	const format = FORMATS.find((each) => said === `${EXPORTS}${FILE_FORMATS[each].words}`.toLowerCase())
	if (format) return { value: { kind: 'export', format } }
	if (said.startsWith(LEADS)) return { value: { kind: 'link', address: text.trim().slice(LEADS.length) } }
	const [, verb = '', name = text] = /^(opens?|runs?)\s+(.+)$/is.exec(text) ?? []
	if (verb.toLowerCase().startsWith('run')) {
		const routine = read(routineNames(place), name)
		return 'message' in routine ? routine : { value: { kind: 'run', routine: routine.value } }
	}
	const found = read(screenNames(place), name)
	return 'message' in found ? found : { value: { kind: 'open', screen: found.value } }
}
