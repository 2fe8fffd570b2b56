/** Slots for a picture or a film: chosen from one's own files, never typed. */
import type { AppFile } from '../../document/parts.ts'
import type { Reading, SlotEntry } from './entry.ts'
import { quoteName, unquoteName } from './names.ts'

export function fileOf(what: string): SlotEntry<AppFile> {
	return {
		isFormula: false,
		print: ({ name }) => name,
		printExact: ({ name, sha }) => `${quoteName(name)} #${sha}`,
		read: (text) => ({
			message: `"${text}" is no ${what}. Leave it out here, and choose one from your files afterwards.`
		}),
		readExact: (text) => readFile(text, what),
		files: ({ sha }) => [sha]
	}
}

/** The name, and what is in it: by that it is the same in another app of the workspace. */
function readFile(text: string, what: string): Reading<AppFile> {
	const [, name, sha] = /^(.*) #([0-9a-f]{64})$/s.exec(text.trim()) ?? []
	return name === undefined || sha === undefined
		? { message: `"${text}" names no ${what}.` }
		: { value: { name: unquoteName(name), sha } }
}
