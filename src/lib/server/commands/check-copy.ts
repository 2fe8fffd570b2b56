import Database from 'better-sqlite3'
import { existsSync, readFileSync } from 'node:fs'
import { openRowIds } from '../store/row-ids.ts'
import { findBrokenSeal } from '../history/history.ts'
import { openStore } from '../store/store.ts'
import { MIGRATIONS, schemaNumber } from '../store/migrate.ts'
import { registerFunctions } from '../store/register-functions.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

/** What is wrong with a copy of a workspace, in one sentence; undefined if it can be restored. */
export function checkCopy(file: string): string | undefined {
	const db = new Database(file, { readonly: true })
	try {
		if (db.pragma('integrity_check', { simple: true }) !== 'ok') return `${file} is damaged and was not restored.`
		const schema = schemaNumber(db)
		if (schema > MIGRATIONS.length)
			return `${file} is of a newer program: its schema is number ${schema}, this one knows up to ${MIGRATIONS.length}.`
		registerFunctions(db)
		const store = openStore(db, openRowIds(Buffer.alloc(16)))
		const broken = findBrokenSeal(store)
		if (broken !== undefined) return `${file} was altered: entry ${broken} of its history does not fit its seal.`
		return checkHead(db, file)
	} catch (error) {
		// Node's own errors carry a code.
		const { code = '' } = error as { code?: string }
		// Of a file that holds something else SQLite says so; of its own, which parts it cannot read.
		return code === 'SQLITE_NOTADB' || code === 'SQLITE_ERROR'
			? `${file} is no copy of a workspace.`
			: `${file} is damaged and was not restored.`
	} finally {
		db.close()
	}
}

/** The head of the chain, kept beside the copy: with it, a chain that was made anew from the start is found too. */
function checkHead(db: Database.Database, file: string): string | undefined {
	const head = file.replace(/\.db$/, '.head.json')
	if (!existsSync(head)) return undefined
	const kept = ownJson<{ seq: number; seal: string } | null>(readFileSync(head, 'utf8'))
	const seal = kept && db.prepare<unknown[], string>('SELECT seal FROM history WHERE seq = ?').pluck().get(kept.seq)
	return kept && seal !== kept.seal
		? `${file} was altered: its history does not end as it did when it was copied.`
		: undefined
}
