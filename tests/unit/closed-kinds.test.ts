/**
 * Adding a kind to a union is an error wherever the program must know of it, until it does: the compiler is asked, with a
 * further kind written in.
 */
import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { typeCheck } from '../support/type-check.ts'

/** The text of a file with words of it exchanged, each of which must stand there. */
function exchange(path: string, ...words: readonly (readonly [string, string])[]): Record<string, string> {
	let text = readFileSync(path, 'utf8')
	for (const [from, to] of words) {
		if (!text.includes(from)) throw new Error(`Cannot find "${from}" in ${path}`)
		text = text.replace(from, () => to)
	}
	return { [path]: text }
}

interface Registry {
	readonly what: string
	/** Files that know something of each kind. */
	readonly files: readonly string[]
	/** The further kind in the union, and no more. */
	readonly added: Readonly<Record<string, string>>
	/** With all that is asked for. */
	readonly whole: Readonly<Record<string, string>>
}

const LINES = 'src/lib/core/app/lines/all.ts'
const SCREEN = 'src/lib/server/apps/shown/all.ts'
const ROUTINE = 'src/lib/core/routine/routine.ts'
const RUN = 'src/lib/server/routines/run-routine.ts'

const line = [
	'	buttonSchema\n] as const',
	`	buttonSchema,\n	headingSchema.extend({ kind: z.literal('tally') })\n] as const`
] as const
const step = ['[setStepSchema, sendStepSchema]', `[setStepSchema, sendStepSchema, z.object({ id, kind: z.literal('ring') })]`] as const // prettier-ignore
const start = ['[buttonStartSchema, rowsStartSchema]', `[buttonStartSchema, rowsStartSchema, buttonStartSchema.extend({ kind: z.literal('bell') })]`] as const // prettier-ignore

const TYPES = 'src/lib/core/model/table.ts'
const KINDS = 'src/lib/core/table/kinds/all.ts'
const STORAGE = 'src/lib/core/table/storage.ts'
const CONTROLS = 'src/lib/ui/cells/controls.ts'
const FORMATS = 'src/lib/server/exports/value-format.ts'
const INFER = 'src/lib/core/exchange/infer.ts'
const FORMULA_TYPE = 'src/lib/core/formula/check/column-type.ts'
const type = ["	'code',\n	'place',", "	'code',\n	'tide',\n	'place',"] as const

const SLOTS = 'src/lib/core/sentence/slots/all.ts'
const EDITORS = 'src/lib/ui/sentences/slots/editors.ts'
const slot = ["	text: string\n", "	text: string\n	tide: string\n"] as const // prettier-ignore

const STRUCTURE_REQUESTS = 'src/lib/core/requests/structure.ts'
const CHANGE_STRUCTURE = 'src/lib/server/requests/change-structure.ts'
const request = ["	z.object({ kind: z.literal('relations'), table }),", "	z.object({ kind: z.literal('relations'), table }),\n	z.object({ kind: z.literal('twin'), table }),"] as const // prettier-ignore

const FILE_FORMATS = 'src/lib/core/exchange/file-formats.ts'
const MAKERS = 'src/lib/server/exports/make-file.ts'
const format = ["'json' | 'sqlite'", "'json' | 'sqlite' | 'slate'"] as const
const APP_ERROR = 'src/lib/core/app-error.ts'
const STATUS = 'src/lib/server/web/answer.ts'
const code = ["'busy' | ", "'busy' | 'asleep' | "] as const

const REGISTRIES: readonly Registry[] = [
	{
		what: 'a type of slot',
		files: [SLOTS, EDITORS],
		added: exchange(SLOTS, slot),
		whole: {
			...exchange(SLOTS, slot, ['	text: plainText,', '	text: plainText,\n	tide: plainText,']),
			...exchange(EDITORS, ['	text: TextSlot,', '	text: TextSlot,\n	tide: TextSlot,'])
		}
	},
	{
		what: 'a request about the structure of tables',
		files: [CHANGE_STRUCTURE],
		added: exchange(STRUCTURE_REQUESTS, request),
		whole: {
			...exchange(STRUCTURE_REQUESTS, request),
			...exchange(CHANGE_STRUCTURE, [
				'	relations: (asked',
				"	twin: (asked, { threads, by }) => threads.write('removeTable', { ...asked, ...by }),\n	relations: (asked"
			])
		}
	},
	{
		what: 'a format of files',
		files: [FILE_FORMATS, MAKERS],
		added: exchange(FILE_FORMATS, format),
		whole: {
			...exchange(FILE_FORMATS, format, [
				'	json: { words',
				"	slate: { words: 'Slate', ending: 'slate', mediaType: 'text/plain', mostRows: 1 },\n	json: { words"
			]),
			...exchange(MAKERS, ['	json: makeJson,', '	json: makeJson,\n	slate: makeJson,'])
		}
	},
	{
		what: 'a code of refusals',
		files: [STATUS],
		added: exchange(APP_ERROR, code),
		whole: { ...exchange(APP_ERROR, code), ...exchange(STATUS, ['	busy: 429,', '	busy: 429,\n	asleep: 503,']) }
	},
	{
		what: 'a type of column',
		files: [KINDS, STORAGE, FORMULA_TYPE, CONTROLS, FORMATS, INFER],
		added: exchange(TYPES, type),
		whole: {
			...exchange(TYPES, type),
			...exchange(KINDS, ['	code,\n', '	code,\n	tide: code,\n']),
			...exchange(STORAGE, ['	code: KEYED_TEXT,', '	code: KEYED_TEXT,\n	tide: KEYED_TEXT,']),
			...exchange(CONTROLS, ['	code: LINE,', '	code: LINE,\n	tide: LINE,']),
			...exchange(FORMATS, ["	code: 'text as typed',", "	code: 'text as typed',\n	tide: 'text',"]),
			...exchange(INFER, ['	text: undefined,', '	text: undefined,\n	tide: undefined,']),
			...exchange(FORMULA_TYPE, ["		case 'code':", "		case 'code':\n		case 'tide':"])
		}
	},
	{
		what: 'a line of a screen',
		files: [LINES, SCREEN],
		added: exchange(LINES, line),
		whole: {
			...exchange(
				LINES,
				line,
				["import type { LineEntry } from './entry.ts'", "import { PLAIN_LINE, type LineEntry } from './entry.ts'"],
				['...{ section, ', 'tally: { ...PLAIN_LINE, sentence: heading.sentence },\n	...{ section, ']
			),
			...exchange(SCREEN, ['	mark: NOT_BY_ITSELF,', '	mark: NOT_BY_ITSELF,\n	tally: NOT_BY_ITSELF,'])
		}
	},
	{
		what: 'a step of a routine',
		files: [ROUTINE, RUN],
		added: exchange(ROUTINE, step),
		whole: {
			...exchange(ROUTINE, step, [
				'	set: setStep,',
				'	set: setStep,\n	ring: { sentence: sendStep.sentence, withoutPresser: undefined, written: () => [], check: () => [] },'
			]),
			...exchange(RUN, ['	set: { atPress', '	ring: { atPress: undefined, later: undefined },\n	set: { atPress'])
		}
	},
	{
		what: 'a start of a routine',
		files: [ROUTINE],
		added: exchange(ROUTINE, start),
		whole: exchange(ROUTINE, start, [
			'	button: buttonStart,',
			`	button: buttonStart,\n	bell: { sentence: buttonStart.sentence, isPressed: true, begin: (table) => ({ kind: 'bell', table }), check: () => [] },`
		])
	}
]

describe.each(REGISTRIES)('$what', ({ files, added, whole }) => {
	test('is asked for in each file that must know of it, and the files are sound once it is there', () => {
		const asked = typeCheck(files, added)
		expect(files.filter((file) => !asked.some((each) => each.startsWith(`${file}: `)))).toEqual([])
		expect(typeCheck(files, whole)).toEqual([])
	})
})
