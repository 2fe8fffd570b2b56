/** What the program must know of a kind of step and of a kind of start, whatever it does with it. */
import type { Found } from '../document/findings.ts'
import type { Here, Scope } from '../formula/check/check-call.ts'
import type { HeldKind } from '../formula/check/rename.ts'
import type { Catalogue, Table } from '../model/table.ts'
import type { Sentence } from '../sentence/types.ts'

export interface NamedRoutine {
	readonly name: string
	/** The table on whose rows other routines run it; undefined where it starts otherwise. */
	readonly calledOn: number | undefined
	/** The values that it takes, by name. */
	readonly takes: Readonly<Record<string, HeldKind>>
}

/** Where a step stands: on which row, around which other, and as whom it acts. */
export interface AroundStep {
	readonly catalogue: Catalogue
	/** Of the row at hand; none after a clock, outside of each row of a table. */
	readonly table: Table | undefined
	/** Of the row around that, which formulas reach as `this`. */
	readonly outer: Table | undefined
	/** Of the rows that the line around it adds or goes through. */
	readonly holds: Table | undefined
	/** Whether somebody presses, who is there to be told something. */
	readonly isPressed: boolean
	/** Whether it acts as whoever pressed, who is `me` then. */
	readonly hasMe: boolean
	/** Whether it acts as somebody: whoever pressed, or a role. */
	readonly acts: boolean
	/** Whether it acts as a role. */
	readonly actsAsRole: boolean
	/** Whether there is a role. */
	readonly hasRole: (id: number) => boolean
	/** A routine of its app: what it is called, and how it starts. */
	readonly findRoutine: (id: string) => NamedRoutine | undefined
	/** A sign-off of its app: what it is called, and on rows of which table it decides. */
	readonly findSignoff: (id: string) => { readonly name: string; readonly table: number } | undefined
	/** Whether its app has a screen. */
	readonly hasScreen: (id: string) => boolean
	/** The values that the routine holds by name. */
	readonly here: Here
	/** Those of them that anybody may read. */
	readonly given: Here
}

/** What a step does to rows of a table. */
export interface Writing {
	readonly table: number
	readonly verb: 'add' | 'change' | 'remove'
	readonly columns: readonly number[]
}

export interface StepEntry<S> {
	/** How it is printed, typed and begun; its slots say what it names. */
	readonly sentence: Sentence
	/** The kinds of lines that it holds: any step, those that are named, or none. */
	readonly holds: 'steps' | readonly string[]
	/** Whether it stands only where a kind names it. */
	readonly isInner: boolean
	/** Whether it needs a row that it stands on. */
	readonly needsRow: boolean
	/** Whether it acts on rows as somebody: whoever pressed, or a role. */
	readonly needsActor: boolean
	/** Whether it speaks to whoever pressed. */
	readonly needsPresser: boolean
	/** Whether its own formulas stand on rows of the table that it names, the row at hand around them. */
	readonly readsRows: boolean
	/** Whether what it holds stands there too. */
	readonly goesThrough: boolean
	/** The rows and columns that it writes; `at`: the table of the row at hand, or of what holds it. */
	writes(step: S, at: number | undefined): readonly Writing[]
	/** What would not work there. */
	check(step: S, around: AroundStep): Found[]
}

/** Of a step that holds nothing, and asks for no more than a row. */
export const PLAIN_STEP = {
	...{ holds: [], isInner: false, needsRow: true, needsActor: false, needsPresser: false },
	...{ readsRows: false, goesThrough: false },
	writes: () => []
} as const

export interface StartEntry<S> {
	readonly sentence: Sentence
	/** When it starts, in a few words, as it is offered: "at a button". */
	readonly offer: string
	/** Whether somebody presses it, on a row that they see; else it learns of rows by itself, which is its keeper's to release. */
	readonly isPressed: boolean
	/** The values that it brings by itself, by name. */
	readonly holds: Readonly<Record<string, HeldKind>>
	/** Who gives the values that the first lines take. */
	readonly takes: 'nothing' | 'from a routine' | 'from outside'
	/** A fresh one, on a table. */
	begin(table: number): S
	check(start: S, table: Table | undefined, catalogue: Catalogue): Found[]
}

/** Of a start that brings no values. */
export const PLAIN_START = { holds: {}, takes: 'nothing' } as const

/** What formulas of a step are checked in. */
export function scopeAt({ catalogue, table, outer, here }: AroundStep, me: boolean): Scope {
	return { catalogue, rows: table ? [...(outer ? [outer] : []), table] : [], me, here }
}

/** What words to somebody are checked in: of what is held, nothing that they might not see. */
export function scopeOfWords(around: AroundStep): Scope {
	return scopeAt({ ...around, here: around.given }, true)
}

/** What is checked in that is read by somebody else, later and elsewhere: nothing that is held reaches there. */
export function scopeOfReader(around: AroundStep): Scope {
	return scopeAt({ ...around, here: NOTHING }, true)
}

const NOTHING: Here = new Map()
