import { openForWriting } from '../store/open.ts'
import { tellOfChanges } from '../rows/change.ts'
import { raiseEvents } from '../events/events.ts'
import { askStewardsForRole } from '../joining/ask-for-role.ts'
import { askForRolesBy } from '../routines/ask-for-role.ts'
import { openSignoffsBy } from '../routines/begin-signoff.ts'
import { openCase } from '../signoffs/open-case.ts'
import { openRowIds } from '../store/row-ids.ts'
import { openStore, type Store } from '../store/store.ts'

/**
 * Puts together what writes: the one writable connection, and what a change of a row causes. `key`: the workspace's, as
 * hex. `refuseToGoOn`: asked from inside long scans; what it throws ends them.
 */
export function openWriter(file: string, key: string, refuseToGoOn?: () => void): Store {
	tellOfChanges(raiseEvents)
	openSignoffsBy(openCase)
	askForRolesBy(askStewardsForRole)
	return openStore(openForWriting(file, refuseToGoOn), openRowIds(Buffer.from(key, 'hex')))
}
