/** Makes a fresh copy of the workspace one to try things on: nothing waits in it, and nobody is signed in. */
import type { Store } from './store.ts'

const IS_TRY = `SELECT 1 FROM meta WHERE key = 'try'`

/** Makes a copy of the workspace one for trying: nobody is signed in, nothing is sent. */
export function becomeTry(store: Store): void {
	store.db.exec(`
		DELETE FROM job;
		DELETE FROM session;
		DELETE FROM pass;
		INSERT INTO meta (key, value) VALUES ('try', 'yes') ON CONFLICT (key) DO NOTHING`)
}

/** Whether this is such a copy; there the Lookout may change rows. */
export function isTry(store: Store): boolean {
	return store.prepare(IS_TRY).get() !== undefined
}
