/** A piece of SQL and the values of its `?`, in order. Never a bare string. */
export interface Sql {
	readonly text: string
	readonly params: readonly SqlValue[]
}

export type SqlValue = null | number | string | bigint

/** `` sql`n = ${param(5)}` `` joins pieces into one; what stands in `${}` is SQL itself or a name made by this program. */
export function sql(strings: TemplateStringsArray, ...pieces: readonly (Sql | number)[]): Sql {
	let text = strings[0] ?? ''
	const params: SqlValue[] = []
	pieces.forEach((piece, i) => {
		if (typeof piece === 'number') text += String(Math.trunc(piece))
		else {
			text += piece.text
			params.push(...piece.params)
		}
		text += strings[i + 1] ?? ''
	})
	return { text, params }
}

/** A value that is bound, wherever it came from. */
export function param(value: SqlValue): Sql {
	return { text: '?', params: [value] }
}

/** SQL without values that this program wrote itself: a name it made, a keyword. Never anything a person typed. */
export function raw(text: string): Sql {
	return { text, params: [] }
}

/** Pieces with a separator between them; `separator` is written by this program. */
export function joinSql(pieces: readonly Sql[], separator: string): Sql {
	return { text: pieces.map((piece) => piece.text).join(separator), params: pieces.flatMap((piece) => piece.params) }
}

/** Holds where all do; always, where there are none. */
export function allOf(conditions: readonly Sql[]): Sql {
	if (conditions.length === 0) return raw('1')
	return conditions.length === 1 && conditions[0] ? conditions[0] : sql`(${joinSql(conditions, ' AND ')})`
}

/** Holds where one does; never, where there are none. */
export function anyOf(conditions: readonly Sql[]): Sql {
	if (conditions.length === 0) return raw('0')
	return conditions.length === 1 && conditions[0] ? conditions[0] : sql`(${joinSql(conditions, ' OR ')})`
}

/**
 * A text constant of a formula as SQL, where binding it would cost: the standard's own quotes, each doubled inside.
 * Undefined for a text that cannot stand so: the database would end it at a zero character.
 */
export function quoteText(text: string): Sql | undefined {
	return text.includes('\0') ? undefined : raw(`'${text.replaceAll("'", "''")}'`)
}

/** The one place where a name that a person chose becomes part of SQL. */
export function quoteName(name: string): Sql {
	return raw(`"${name.replaceAll('"', '""').replaceAll('\0', '')}"`)
}
