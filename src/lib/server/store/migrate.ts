/**
 * Brings a database up to the schema of this program: numbered `.sql` files, each applied once, in a transaction that
 * also records its number. Forward only. A database that is newer than the program is refused, saying both numbers.
 */
import { OperatorError } from '../base/for-operator.ts'
import type { Database } from 'better-sqlite3'

const FILES = import.meta.glob<string>('./migrations/*.sql', { query: '?raw', import: 'default', eager: true })

interface Migration {
	readonly number: number
	readonly text: string
}

export const MIGRATIONS: readonly Migration[] = Object.entries(FILES)
	.map(([path, text]) => ({ number: Number(/(\d{4})-/.exec(path)?.[1]), text }))
	.sort((a, b) => a.number - b.number)

/** Applies what is missing, up to `target` (all of them, unless a test asks for an earlier schema). */
export function migrate(db: Database, target = MIGRATIONS.length): void {
	const at = schemaNumber(db)
	if (at > MIGRATIONS.length) {
		throw new OperatorError(
			`This workspace is of a newer program: its schema is number ${at}, this program knows up to ${MIGRATIONS.length}. Start it with the newer one.`
		)
	}
	for (const { number, text } of MIGRATIONS) {
		if (number <= at || number > target) continue
		db.transaction(() => {
			db.exec(text)
			db.pragma(`user_version = ${number}`)
		}).immediate()
	}
}

/** How many migrations a database has been through. */
export function schemaNumber(db: Database): number {
	return Number(db.pragma('user_version', { simple: true }))
}
