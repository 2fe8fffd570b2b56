/** The workspace's key: what row ids and secrets are sealed with. It lies beside the database, in no copy of it. */
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { OperatorError } from './for-operator.ts'

const BYTES = 32

/**
 * The key, as hex; made where there is no workspace yet, readable by this program alone. Where there is one, another key
 * would open none of its secrets and know none of its rows by the ids that went out, so that is refused.
 */
export function readKey(folder: string): string {
	const file = join(folder, 'secret.key')
	if (!existsSync(file)) {
		if (existsSync(join(folder, 'workspace.db')))
			throw new OperatorError(
				`${file} is gone, and without it this workspace's secrets cannot be read. Put it back from where you keep it. If it is lost for good: npm run new-key`
			)
		makeKey(folder)
	}
	const key = readFileSync(file, 'utf8').trim()
	if (!/^[\da-f]{64}$/.test(key))
		throw new OperatorError(`${file} holds no key of ours. Put the file back as it was, from where you keep it.`)
	return key
}

/** Writes a new key beside the workspace, readable by its owner alone. */
export function makeKey(folder: string): void {
	writeFileSync(join(folder, 'secret.key'), randomBytes(BYTES).toString('hex'), { mode: 0o600 })
}
