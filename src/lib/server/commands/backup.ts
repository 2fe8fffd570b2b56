/** `npm run backup`: copies the workspace, running or not, into its backup folder. */
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { copyFiles } from '../files/copy-files.ts'
import { backUp } from '../store/back-up.ts'
import { endForOperator } from '../base/for-operator.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
try {
	console.log(`Copied to ${copyWorkspace()}`)
} catch (error) {
	endForOperator(error, folder)
}

function copyWorkspace(): string {
	const db = new Database(join(folder, 'workspace.db'), { fileMustExist: true })
	const copies = join(folder, 'backup')
	const { file } = backUp({ db }, { folder: copies, now: Date.now() })
	db.close()
	// After the database, so that no cell of the copy names a file that the copy has not.
	copyFiles(join(folder, 'files'), join(copies, 'files'))
	return file
}
