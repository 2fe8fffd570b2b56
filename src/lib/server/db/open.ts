/**
 * Opens the workspace's one SQLite file: once for writing, by the writer thread, and for reading by the others.
 */
import Database from 'better-sqlite3'
import { migrate } from './migrate.ts'
import { registerFunctions } from './register-functions.ts'
import { watchTurns } from './turns.ts'

export type Db = Database.Database

/** Opens the only writable connection and brings the file up to this program's schema. */
export function openForWriting(file: string): Db {
	const db = new Database(file)
	db.pragma('journal_mode = WAL')
	db.pragma('synchronous = FULL')
	db.pragma('foreign_keys = ON')
	db.pragma('busy_timeout = 5000')
	registerFunctions(db)
	migrate(db)
	watchTurns(db)
	return db
}

/** `onTick` is called from time to time during long scans, and may throw to end them. */
export function openForReading(file: string, onTick: () => void): Db {
	const db = new Database(file, { readonly: true, fileMustExist: true })
	db.pragma('query_only = ON')
	db.pragma('mmap_size = 1073741824')
	registerFunctions(db, onTick)
	return db
}
