/** By what the values of each type of column are entered and shown, in a form and in a grid. A new type has its entry here. */
import type { ColumnTypeName } from '$lib/core/model/table.ts'
import { typeInstant } from '$lib/core/table/show-times.ts'
import { figuresOf } from '$lib/core/table/show-value.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'

type Scalar = string | number | boolean

export interface Control {
	/**
	 * - `line`: one line of text, by `input`
	 * - `lines`: several
	 * - `choice`: one of the column's choices; `yes or no`: one of those two
	 * - `several`: any of the column's choices
	 * - `row`: a row to refer to
	 * - `file`: a file, a photo or something drawn
	 * - `none`: worked out, never typed
	 */
	readonly by: 'line' | 'lines' | 'choice' | 'yes or no' | 'several' | 'row' | 'file' | 'none'
	/** What a browser calls a line that is typed with help of its own. */
	readonly input?: 'date' | 'datetime-local' | 'email' | 'tel'
	/** Typed with figures: the number pad on a phone, and the column's unit beside the name. */
	readonly inFigures?: true
	/** Stands at the right, figures under figures. */
	readonly atRight?: true
	/** How wide it is in a grid at first, in pixels. */
	readonly width: number
	/** The text that somebody begins to change a value with; as it stands where nothing is said. */
	readonly typed?: (value: Scalar, column: ShownColumn) => string
}

const LINE: Control = { by: 'line', width: 150 }
const FIGURES: Control = {
	...{ by: 'line', inFigures: true, atRight: true, width: 96 },
	typed: (value, { writing }) => (typeof value === 'number' ? figuresOf(value, writing) : String(value))
}
const SPAN: Control = { by: 'line', atRight: true, width: 96, typed: (value, column) => showCell(column, value) }
const FILE: Control = { by: 'file', width: 150 }

export const CONTROLS: Readonly<Record<ColumnTypeName, Control>> = {
	text: LINE,
	'long text': { by: 'lines', width: 260 },
	'whole number': FIGURES,
	decimal: FIGURES,
	money: FIGURES,
	percent: { ...FIGURES, typed: (value, column) => showCell(column, value) },
	'yes/no': { by: 'yes or no', width: 96, typed: (value) => (value === true ? 'yes' : 'no') },
	date: { by: 'line', input: 'date', width: 150 },
	// Room for the field in which it is changed.
	'date and time': {
		by: 'line',
		input: 'datetime-local',
		width: 230,
		typed: (value, column) => typeInstant(String(value), column.timeZone)
	},
	time: SPAN,
	duration: SPAN,
	choice: { by: 'choice', width: 150 },
	'several choices': { by: 'several', width: 150 },
	email: { by: 'line', input: 'email', width: 150 },
	phone: { by: 'line', input: 'tel', width: 150 },
	'web address': LINE,
	code: LINE,
	place: LINE,
	photo: FILE,
	file: FILE,
	ink: FILE,
	signature: FILE,
	reference: { by: 'row', width: 150 },
	computed: { by: 'none', width: 150 }
}

/** Whether figures stand under figures, computed ones among them. */
export function isNumeric({ type, shows }: ShownColumn): boolean {
	return CONTROLS[type].atRight === true || shows === 'number' || shows === 'duration'
}
