/**
 * `npm run restore -- FILE`: puts a copy back in the workspace's place. What was there is kept beside it, so that a
 * wrong choice can be put right.
 */
import { copyFileSync, existsSync, mkdirSync, renameSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { checkCopy } from './check-copy.ts'
import { copyFiles } from '../files/copy-files.ts'
import { endForOperator } from '../base/for-operator.ts'
import { lockWorkspace } from '../base/lock.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
const [file = ''] = process.argv.slice(2)
if (file === '' || !existsSync(file)) {
	console.error('Usage: npm run restore -- FILE, with FILE a copy that npm run backup made')
	process.exit(2)
}
try {
	console.log(restore())
} catch (error) {
	endForOperator(error, folder)
}

function restore(): string {
	mkdirSync(folder, { recursive: true, mode: 0o700 })
	const unlock = lockWorkspace(folder)
	const wrong = checkCopy(file)
	if (wrong !== undefined) {
		console.error(wrong)
		process.exit(1)
	}
	const place = join(folder, 'workspace.db')
	const kept = `${place}.before-restore-${Date.now()}`
	if (existsSync(place)) renameSync(place, kept)
	for (const rest of ['-wal', '-shm']) if (existsSync(place + rest)) renameSync(place + rest, kept + rest)
	copyFileSync(file, place)
	copyFiles(join(dirname(file), 'files'), join(folder, 'files'))
	unlock()
	return `Restored from ${file}. What was there before is kept as ${kept}.`
}
