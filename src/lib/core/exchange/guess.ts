/** What a column of a file is taken for, and what of it its builder should settle. */
import type { ColumnTypeName } from '../model/table.ts'
import type { Writing } from '../model/writing.ts'

export interface ColumnGuess {
	readonly name: string
	readonly unit?: string
	readonly type: ColumnTypeName
	readonly places?: number
	readonly choices?: readonly string[]
	readonly writing: Writing
	/** Every row is blank: nothing to bring in. */
	readonly blank: boolean
	readonly doubts: readonly Doubt[]
}

/** Something the builder should settle, with what is proposed. */
export type Doubt =
	| {
			readonly kind: 'day or month'
			readonly both: number
			readonly dayOnly: number
			readonly monthOnly: number
			readonly sample: string
	  }
	| { readonly kind: 'dot or comma'; readonly sample: string; readonly rows: readonly number[] }
	/** Amounts with more decimals than money keeps. */
	| { readonly kind: 'more places'; readonly sample: string; readonly count: number; readonly unit: string | undefined }
	/** Amounts, by their name and digits, without a word of what money they are. */
	| { readonly kind: 'currency'; readonly sample: string }
	/** One value that can only be read by changing it. */
	| {
			readonly kind: 'other writing'
			readonly text: string
			readonly proposed: string
			readonly rows: readonly number[]
	  }
	| { readonly kind: 'spelling'; readonly text: string; readonly proposed: string; readonly rows: readonly number[] }
	| { readonly kind: 'unreadable'; readonly text: string; readonly rows: readonly number[] }
