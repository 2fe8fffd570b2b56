/** Rows as a screen shows them otherwise than by a list: in the lanes of a board, on the days of a calendar, on a map, as a figure, as a chart. */
import type { OverScale } from '../chart/columns.ts'
import type { Filter } from '../query/filter.ts'
import type { CalendarView } from '../schedule/shown-period.ts'
import type { Laid } from '../schedule/lay-out-spans.ts'
import type { WireRow } from '../query/wire.ts'
import type { Tone } from '../sentence/slots/all.ts'
import type { ShownColumn } from './shown-column.ts'

export interface ListMark {
	readonly word: string
	readonly tone: Tone
}

export interface ShownBoard {
	readonly title: string
	/** The column whose choices the lanes are. */
	readonly by: string
	readonly columns: readonly ShownColumn[]
	readonly marks: readonly ListMark[]
	readonly opens: string | null
	readonly lanes: readonly ShownLane[]
	/** Whether some card may be moved; whether this one may is asked when it is. */
	readonly canMove: boolean
}

export interface ShownCalendar {
	readonly title: string
	readonly columns: readonly ShownColumn[]
	readonly marks: readonly ListMark[]
	readonly opens: string | null
	/** The screen on which one is added, where this person may open it: it gets the day as `here.day`. */
	readonly adds: string | null
	readonly view: CalendarView
	/** The period that is shown, and its neighbours, as they stand in the address. */
	readonly key: string
	readonly name: string
	readonly before: string
	readonly after: string
	/** That of today, and of what is shown now in each view. */
	readonly today: string
	readonly views: Readonly<Record<CalendarView, string>>
	readonly weeks: readonly ShownWeek[]
	/** In the order of their days. */
	readonly entries: readonly ShownDayEntry[]
	/** Whether the period holds more than these. */
	readonly isCut: boolean
	/** Whether some entry may be moved; whether this one may is asked when it is. */
	readonly canMove: boolean
}

export interface ShownWeek {
	/** As ISO 8601 counts it, with its key. */
	readonly number: number
	readonly key: string
	readonly days: readonly ShownDay[]
	/** Where its entries stand. */
	readonly spans: readonly Laid[]
}

export interface ShownDay {
	/** ISO 8601. */
	readonly date: string
	/** In words, with its weekday. */
	readonly says: string
	/** Whether it belongs to the period itself. */
	readonly isInside: boolean
	readonly isToday: boolean
}

export interface ShownDayEntry {
	readonly row: WireRow
	/** ISO dates, both within. */
	readonly from: string
	readonly to: string
	/** Its days, in words. */
	readonly says: string
	/** The time of day at which it begins; blank where its column holds days. */
	readonly at: string
}

export interface ShownLane {
	/** Blank for rows that are in none. */
	readonly value: string
	readonly count: number
	/** What its rows come to; blank where nothing is added up. */
	readonly sum: string
	/** The first of them. */
	readonly rows: readonly WireRow[]
}

export interface ShownMap {
	readonly title: string
	readonly columns: readonly ShownColumn[]
	readonly marks: readonly ListMark[]
	readonly opens: string | null
	readonly points: readonly ShownPoint[]
	/** The choices by which signs are told apart. */
	readonly signs: readonly string[]
	/** They are called at one after another: by which column, and whether some may be moved; null without an order. */
	readonly order: { readonly name: string; readonly canMove: boolean } | null
	/** By the SHA-256 of its bytes. */
	readonly ground: string | null
	/** Whether there are more than these. */
	readonly isCut: boolean
	/** How many rows, among those that the reader sees, lie nowhere that they see. */
	readonly nowhere: number
}

export interface ShownPoint {
	readonly row: WireRow
	/** Latitude and longitude in degrees. */
	readonly at: readonly [number, number]
	/** Which of the signs; null for none of them. */
	readonly sign: number | null
	/** By which it is called at; null where it is not, left out where that is kept back. */
	readonly stop?: number | null | undefined
}

/** The rows behind a number: what of them is shown first, and the screen that one opens. */
export interface RowsBehind {
	readonly columns: readonly ShownColumn[]
	readonly opens: string | null
	/** How many rows, among those that the reader sees, are left out since what they are measured by is kept back. */
	readonly leftOut: number
}

/** What every chart says of itself. */
export interface Charted extends RowsBehind {
	readonly title: string
	/** Whether it is made of the rows that were added last alone. */
	readonly isPart: boolean
}

export interface ShownFigure extends RowsBehind {
	readonly label: string
	/** As it is read. */
	readonly value: string
	/** How it stands to its aim and to other rows, in words. */
	readonly against: readonly { readonly text: string; readonly isGood: boolean | null }[]
}

export interface ShownChart extends Charted {
	readonly as: OverScale
	readonly ticks: readonly { readonly at: number; readonly text: string }[]
	/** Where nought is, in percent from below. */
	readonly foot: number
	readonly series: readonly { readonly key: string; readonly label: string }[]
	readonly bars: readonly ShownBar[]
	/** Of how many groups the smaller ones are not shown; null where they are too many to be counted. */
	readonly more: number | null
	/** What the pressed one sets, and the key of the one that is set; no name, where none is. */
	readonly holds: string
	readonly isWords: boolean
	readonly chosen: string
}

export interface ShownBar {
	/** As a filter has it and the address; blank for rows where it is left blank. */
	readonly key: string
	readonly label: string
	/** In words, with what it is parted in. */
	readonly says: string
	/** What stands over it. */
	readonly total: string
	readonly top: number
	readonly parts: readonly {
		readonly series: number
		readonly from: number
		readonly to: number
		readonly text: string
	}[]
	/** By which its rows are found among those of the line. */
	readonly filters: readonly Filter[]
}

/** A chart by days, as a year planner has them. */
export interface ShownDays extends Charted {
	readonly months: readonly { readonly label: string; readonly days: readonly PlannedDay[] }[]
	/** What each depth of colour goes up to, the faintest first. */
	readonly depths: readonly { readonly depth: number; readonly text: string }[]
	/** How many earlier days are not shown; null where they are too many to be counted. */
	readonly more: number | null
	readonly holds: string
	readonly chosen: string
}

export interface PlannedDay {
	/** As an ISO date. */
	readonly key: string
	/** From 0, where there is nothing. */
	readonly depth: number
	/** Short enough for its square; blank where there is nothing. */
	readonly text: string
	readonly says: string
	readonly isMonday: boolean
	readonly filters: readonly Filter[]
}

export interface ShownScatter extends Charted {
	readonly across: ShownAxis
	readonly up: ShownAxis
	readonly series: readonly { readonly label: string }[]
	readonly dots: readonly ShownDot[]
	/** How many rows, among those that the reader sees, have no number for one of the two. */
	readonly blank: number
	/** Of how many groups the smaller ones are not shown; null where they are too many to be counted. */
	readonly more: number | null
}

export interface ShownAxis {
	readonly label: string
	readonly ticks: readonly { readonly at: number; readonly text: string }[]
}

export interface ShownDot {
	readonly key: string
	/** In percent from the left and from below. */
	readonly x: number
	readonly y: number
	/** In CSS pixels. */
	readonly radius: number
	readonly series: number
	readonly says: string
	readonly rows: number
	readonly filters: readonly Filter[]
}
