/** What the slots of sentences refer to, by today's names. */

/** Names are looked up here and nowhere else. */
export interface Vocabulary {
	readonly tables: readonly { readonly id: number; readonly name: string; readonly columns: readonly NamedColumn[] }[]
	readonly roles: readonly { readonly id: number; readonly name: string }[]
	readonly screens: readonly { readonly id: string; readonly title: string; readonly stands?: string | null }[]
	readonly routines: readonly { readonly id: string; readonly name: string }[]
	readonly signoffs: readonly { readonly id: string; readonly name: string }[]
	/** Numbers of tables and columns that are there, and not for who reads. */
	readonly unseen?: { readonly tables: readonly number[]; readonly columns: readonly number[] }
}

export interface NamedColumn {
	readonly id: number
	readonly name: string
	readonly type: string
	/** The type of a computed column's values. */
	readonly shows?: string
	readonly to?: number
	/** A named condition, which is no column to show. */
	readonly condition?: boolean
}
