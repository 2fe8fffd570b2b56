/** `npm run backup`: copies the workspace, running or not, into its backup folder. */
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { registerFunctions } from '../db/register-functions.ts'
import { copyFiles } from '../files/copy-files.ts'
import { backUp } from '../db/back-up.ts'
import { readKey } from '../host.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
const db = new Database(join(folder, 'workspace.db'), { fileMustExist: true })
registerFunctions(db)
const copies = join(folder, 'backup')
const { file } = backUp(openStore(db, openRowIds(Buffer.from(readKey(folder), 'hex'))), {
	folder: copies,
	now: Date.now()
})
db.close()
// After the database, so that no cell of the copy names a file that the copy has not.
copyFiles(join(folder, 'files'), join(copies, 'files'))
console.log(`Copied to ${file}`)
