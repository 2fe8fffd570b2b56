import { read, refuse, type ColumnKind } from './kind.ts'

const YES = new Set(['yes', 'y', 'true', '1', 'x', '✓', '✔', 'on', 'ja', 'oui', 'si', 'sí', 'j', 'wahr'])
const NO = new Set(['no', 'n', 'false', '0', 'off', 'nein', 'non', '✗', '✘', 'falsch'])

export const yesNo: ColumnKind = {
	name: 'yes/no',
	read: (text) => {
		const word = text.toLowerCase()
		if (YES.has(word)) return read(true)
		return NO.has(word) ? read(false) : refuse(`"${text}" is neither yes nor no.`)
	},
	check: (value) => (typeof value === 'boolean' ? read(value) : refuse('Yes or no was expected here.')),
	toStored: (value) => (value === true ? 1 : 0),
	fromStored: (stored) => stored === 1,
	show: (value) => (value === true ? 'yes' : 'no')
}

export function isYesNoWord(text: string): boolean {
	const word = text.toLowerCase()
	return YES.has(word) || NO.has(word)
}
