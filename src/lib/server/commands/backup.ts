/** `npm run backup`: copies the workspace, running or not, into its backup folder. */
import { join, resolve } from 'node:path'
import Database from 'better-sqlite3'
import { registerFunctions } from '../db/register-functions.ts'
import { backUp } from '../db/back-up.ts'
import { readKey } from '../host.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
const db = new Database(join(folder, 'workspace.db'), { fileMustExist: true })
registerFunctions(db)
const { file } = backUp(openStore(db, openRowIds(Buffer.from(readKey(folder), 'hex'))), {
	folder: join(folder, 'backup'),
	now: Date.now()
})
db.close()
console.log(`Copied to ${file}`)
