/**
 * One program on one workspace: a second would undo what makes the first one safe. Whoever has it open holds an exclusive
 * transaction on a small database beside it. The system lets go of that when the program ends, however it ends, so a lock that
 * was left behind locks nobody out, whatever other process has its number by now.
 */
import Database from 'better-sqlite3'
import { accessSync, constants, rmSync } from 'node:fs'
import { join } from 'node:path'
import { OperatorError } from './for-operator.ts'

/** Takes the lock; what comes back lets go of it. Refuses at once where another program has it. */
export function lockWorkspace(folder: string): () => void {
	// A database that may only be read opens all the same.
	accessSync(folder, constants.W_OK)
	// What earlier versions wrote: the number of a process, which may be anybody's today.
	rmSync(join(folder, 'lock'), { force: true })
	const db = new Database(join(folder, 'lock.db'), { timeout: 0 })
	try {
		db.exec('BEGIN EXCLUSIVE')
	} catch (error) {
		db.close()
		if (error instanceof Database.SqliteError && error.code.startsWith('SQLITE_BUSY'))
			throw new OperatorError(`The workspace in ${folder} is open in another program. Stop that one first.`)
		throw error
	}
	return () => db.close()
}
