/** One kind more in each registry: as it is written into the union alone, and with all that the compiler then asks for. */
import { readFileSync } from 'node:fs'

/** Words of a file exchanged, each of which must stand there; or the whole text of a new file. */
type Exchanges = readonly (readonly [string, string])[]
type Change = Readonly<Record<string, Exchanges | string>>

function exchange(path: string, ...words: Exchanges): Change {
	return { [path]: words }
}

/** The text of every file that some changes touch. */
export function written(...changes: readonly Change[]): Record<string, string> {
	const texts: Record<string, string> = {}
	for (const [path, change] of changes.flatMap((each) => Object.entries(each))) {
		if (typeof change === 'string') texts[path] = change
		else texts[path] = change.reduce(exchanged(path), texts[path] ?? readFileSync(path, 'utf8'))
	}
	return texts
}

const exchanged =
	(path: string) =>
	(text: string, [from, to]: readonly [string, string]): string => {
		if (!text.includes(from)) throw new Error(`Cannot find "${from}" in ${path}`)
		return text.replace(from, () => to)
	}

export interface Registry {
	readonly what: string
	/** Files that know something of each kind. */
	readonly files: readonly string[]
	/** The further kind in the union, and no more. */
	readonly added: Change
	/** With all that is asked for. */
	readonly whole: Change
}

const LINES = 'src/lib/core/app/lines/all.ts'
const SCREEN = 'src/lib/server/apps/shown/all.ts'
const ROUTINE = 'src/lib/core/routine/routine.ts'
const RUN = 'src/lib/server/routines/run-steps.ts'

/** A kind of line in a file of its own, as a new one is made. */
const SOUNDING = 'src/lib/core/app/lines/sounding.ts'
const SOUNDING_FILE = `
import { z } from 'zod'
import { mistake } from '../../document/findings.ts'
import { formula, number, words } from '../../document/parts.ts'
import { checkCondition } from '../../formula/check/check.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { lineParts, withWhom } from './parts.ts'

export const soundingSchema = z.object({
	...lineParts,
	kind: z.literal('sounding'),
	title: words,
	table: number,
	column: number,
	where: formula
})

export const sounding: LineEntry<z.infer<typeof soundingSchema>> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'sounding',
			about: 'Counts rows',
			tableKey: 'table',
			parts: withWhom(
				'Sounding ', { key: 'title', type: 'text', title: 'its words' },
				' of ', { key: 'table', type: 'table', title: 'a table' },
				' by ', { key: 'column', type: 'column', title: 'a column' },
				' where ', { key: 'where', type: 'condition', title: 'which rows' }
			)
		},
		blank: { kind: 'sounding', title: '', table: null, column: null, where: '', who: [] }
	},
	check: ({ table, where }, { catalogue }) =>
		checkCondition(where, { catalogue, rows: [...catalogue.tables.values()].filter(({ id }) => id === table), me: true })
			.issues.flatMap(({ message }) => mistake(message))
}
`
const SOUNDING_IMPORT = ["import { text, textSchema } from './text.ts'", "import { sounding, soundingSchema } from './sounding.ts'\nimport { text, textSchema } from './text.ts'"] as const // prettier-ignore
const line = ['	withSchema\n] as const', `	withSchema,\n	soundingSchema\n] as const`] as const
const step = ['	stopStepSchema\n] as const', `	stopStepSchema,\n	setStepSchema.extend({ kind: z.literal('ring') })\n] as const`] as const // prettier-ignore
const start = ['		buttonStartSchema,\n', `		buttonStartSchema,\n		buttonStartSchema.extend({ kind: z.literal('bell') }),\n`] as const // prettier-ignore

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

export const REGISTRIES: readonly Registry[] = [
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
		added: { ...exchange(LINES, line, SOUNDING_IMPORT), [SOUNDING]: SOUNDING_FILE },
		whole: {
			[SOUNDING]: SOUNDING_FILE,
			...exchange(LINES, line, SOUNDING_IMPORT, ['...{ section, ', 'sounding,\n	...{ section, ']),
			...exchange(SCREEN, [
				'	mark: NOT_BY_ITSELF,',
				`	mark: NOT_BY_ITSELF,\n	sounding: { holdsSomething: () => true, show: ({ id, title }) => [{ id, kind: 'heading', text: title }] },`
			])
		}
	},
	{
		what: 'a step of a routine',
		files: [ROUTINE, RUN],
		added: exchange(ROUTINE, step),
		whole: {
			...exchange(ROUTINE, step, [
				'	set: setStep,',
				`	set: setStep,
	ring: {
		...setStep,
		sentence: {
			kind: {
				kind: 'ring',
				about: 'Rings',
				parts: [
					'Ring ', { key: 'column', type: 'column', title: 'a column' },
					' with ', { key: 'formula', type: 'formula', title: 'a formula' }
				]
			},
			blank: { kind: 'ring', column: null, formula: '' }
		},
		writes: (step, at) => setStep.writes({ ...step, kind: 'set' }, at),
		check: (step, around) => setStep.check({ ...step, kind: 'set' }, around)
	},`
			]),
			...exchange(RUN, [
				'	set: setCells,',
				"	ring: (step, now) => setCells({ ...step, kind: 'set' }, now),\n	set: setCells,"
			])
		}
	},
	{
		what: 'a start of a routine',
		files: [ROUTINE],
		added: exchange(ROUTINE, start),
		whole: exchange(ROUTINE, start, [
			'	button: buttonStart,',
			`	button: buttonStart,
	bell: {
		sentence: {
			kind: {
				kind: 'bell',
				about: 'Starts when somebody rings',
				tableKey: 'start.table',
				parts: ['When somebody rings at a row of ', { key: 'start.table', type: 'table', title: 'a table' }]
			},
			blank: { start: { kind: 'bell', table: null } }
		},
		holds: {},
		takes: 'nothing',
		offer: 'when somebody rings',
		isPressed: true,
		begin: (table) => ({ kind: 'bell', table }),
		check: () => []
	},`
		])
	}
]
