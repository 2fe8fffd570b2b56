import type { Store } from './store.ts'

/** Works within a transaction; what is thrown undoes all that was done here, and is given back. */
export function inSavepoint<T>(store: Store, work: () => T): { readonly value: T } | { readonly thrown: unknown } {
	store.prepare('SAVEPOINT part').run()
	try {
		const value = work()
		store.prepare('RELEASE part').run()
		return { value }
	} catch (thrown) {
		store.db.exec('ROLLBACK TO part; RELEASE part')
		store.forget()
		return { thrown }
	}
}
