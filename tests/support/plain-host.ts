import type { Host } from '$lib/server/host/host.ts'
import type { Store } from '$lib/server/store/store.ts'
import { READS } from '$lib/server/threads/reads.ts'
import { WRITES } from '$lib/server/threads/writes.ts'

/** A host over one store, without threads: what is asked of it is done at once. */
export function plainHost(store: Store, parts: Partial<Host>): Host {
	const call = (all: Record<string, unknown>) => (name: string, args: unknown) =>
		Promise.resolve().then(() => (all[name] as (store: Store, args: unknown) => unknown)(store, args))
	return { read: call(READS), write: call(WRITES), ...parts } as unknown as Host
}
