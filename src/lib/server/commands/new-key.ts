/**
 * `npm run new-key`: for a workspace whose key is lost for good. Makes another, and drops what was sealed with the old one: second
 * factors, which people set up again, and the providers of sign-in, which a steward adds again. Links to rows that went out in
 * messages lead nowhere any more.
 */
import { countOf } from '$lib/core/text/count.ts'
import { existsSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { openForWriting } from '../store/open.ts'
import { endForOperator } from '../base/for-operator.ts'
import { lockWorkspace } from '../base/lock.ts'
import { makeKey } from '../base/workspace-key.ts'

const folder = resolve(process.env['TIN_SHED_DATA'] ?? 'var')
try {
	renew()
} catch (error) {
	endForOperator(error, folder)
}

function renew(): void {
	const place = join(folder, 'workspace.db')
	if (!existsSync(place) || existsSync(join(folder, 'secret.key'))) {
		console.error(
			existsSync(place)
				? `${folder} has its key; nothing was done.`
				: `There is no workspace in ${folder}. Set TIN_SHED_DATA.`
		)
		process.exit(2)
	}
	const unlock = lockWorkspace(folder)
	const db = openForWriting(place)
	const dropped = db.transaction(() => ({
		factors: db.prepare('DELETE FROM second_factor').run().changes,
		providers: db.prepare('DELETE FROM provider').run().changes
	}))()
	makeKey(folder)
	db.close()
	unlock()
	console.log(
		`A new key was made. Dropped with the old one: the second ${dropped.factors === 1 ? 'factor' : 'factors'} of ${countOf(dropped.factors, 'person', 'people')}, and ${countOf(dropped.providers, 'provider')} of sign-in.`
	)
}
