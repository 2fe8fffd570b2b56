import Database from 'better-sqlite3'

/** Copies a workspace's file as it stands, whole and in itself consistent, while others write to it. */
export function copyDatabase({ from, to }: { readonly from: string; readonly to: string }): void {
	const db = new Database(from, { readonly: true, fileMustExist: true })
	try {
		db.prepare('VACUUM INTO ?').run(to)
	} finally {
		db.close()
	}
}
