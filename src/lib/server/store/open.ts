/**
 * Opens the workspace's one SQLite file: once for writing, by the writer thread, and for reading by the others.
 */
import Database from 'better-sqlite3'
import { closeSync, existsSync, openSync, readSync, statSync } from 'node:fs'
import { OperatorError } from '../base/for-operator.ts'
import { migrate } from './migrate.ts'
import { registerFunctions } from './register-functions.ts'
import { watchTurns } from './turns.ts'

export type Db = Database.Database

/** Opens the only writable connection and brings the file up to this program's schema. `onTick`: as for readers. */
export function openForWriting(file: string, onTick?: () => void): Db {
	refuseCutFile(file)
	const db = new Database(file)
	db.pragma('journal_mode = WAL')
	db.pragma('synchronous = FULL')
	db.pragma('foreign_keys = ON')
	db.pragma('busy_timeout = 5000')
	registerFunctions(db, onTick)
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

/** Looked through at each start; a larger one takes long, and is by `npm run verify` and with every copy. */
const LOOKED_THROUGH = 64 * 1024 * 1024

/** Refuses a small database that is damaged anywhere, before anything is written on top. */
export function refuseDamaged(file: string): void {
	refuseCutFile(file)
	if (!existsSync(file) || statSync(file).size > LOOKED_THROUGH) return
	const db = new Database(file)
	try {
		const found: unknown = db.pragma('quick_check(1)', { simple: true })
		if (found !== 'ok')
			throw new OperatorError(
				`${file} is damaged (${String(found)}). Put the last good copy back: npm run restore -- backup/FILE`
			)
	} finally {
		db.close()
	}
}

const HEADER_BYTES = 32
const MAGIC = Buffer.from('SQLite format 3\0')

/**
 * Refuses a file that is shorter than it says itself (SQLite's file format, 1.3: page size at 16, pages at 28): the database would
 * open it, and fail only where the missing part is read.
 */
export function refuseCutFile(file: string): void {
	if (!existsSync(file)) return
	const { size } = statSync(file)
	// Stopped while it was written back, the rest lies in the log beside it.
	const log = `${file}-wal`
	if (size === 0 || (existsSync(log) && statSync(log).size > 0)) return
	const header = Buffer.alloc(HEADER_BYTES)
	const fd = openSync(file, 'r')
	const read = readSync(fd, header, 0, HEADER_BYTES, 0)
	closeSync(fd)
	if (read >= MAGIC.length && !header.subarray(0, MAGIC.length).equals(MAGIC))
		throw new OperatorError(
			`${file} is no database, or its beginning is damaged. Put the last good copy back: npm run restore -- backup/FILE`
		)
	const written = header.readUInt16BE(16)
	const pageSize = written === 1 ? 65_536 : written
	if (read === HEADER_BYTES && header.readUInt32BE(28) * pageSize <= size) return
	throw new OperatorError(
		`${file} was cut short: it holds ${size.toLocaleString('en-GB')} bytes and should hold more. Put the last good copy back: npm run restore -- backup/FILE`
	)
}
