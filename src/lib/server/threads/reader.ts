/**
 * A reader process: a read-only connection that answers one question at a time, each in one snapshot, as JSON text.
 */
import { AppError } from '$lib/core/app-error.ts'
import { openForReading } from '../store/open.ts'
import { openRowIds } from '../store/row-ids.ts'
import { openStore, type Store } from '../store/store.ts'
import { toAnswer, type Answer, type Ask, type Lacking, type ThreadData } from './protocol.ts'
import { FLAG_FD } from './reader-process.ts'
import { READS, type ReadName } from './reads.ts'
import { isStopped } from './stop-flag.ts'

/** Far longer than anybody waits gladly; the other readers cannot answer everything alone for ever. */
const LONGEST_MS = 30_000
/** Sets within sets ask with each row. */
const EVERY = 16

let store: Store | undefined
/** The question that is being answered, and until when (of `performance.now`). */
let current = { id: 0, until: Infinity }
let asked = 0

// Whoever started it ends it, and nothing else does: a signal from the terminal goes to all of them.
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => undefined)
process.on('disconnect', () => process.exit())
process.on('message', (message: Ask | ThreadData) => {
	if ('file' in message) {
		store = openStore(
			openForReading(message.file, () => {
				if (++asked % EVERY === 0) refuseToGoOn()
			}),
			openRowIds(Buffer.from(message.key, 'hex'))
		)
		process.send?.('ready')
	} else if (store) tell(store, message)
})

function tell({ wanted }: Store, ask: Ask): void {
	process.send?.(answer(ask))
	if (wanted.size === 0) return
	process.send?.({ wanted: [...wanted.values()] } satisfies Lacking)
	wanted.clear()
}

/** Asked from inside long scans. */
function refuseToGoOn(): void {
	if (isStopped(FLAG_FD, current.id)) throw new AppError('busy', 'This was stopped.')
	if (performance.now() > current.until)
		throw new AppError('busy', 'This took too long and was stopped. Narrow it down, or order by another column.')
}

function answer({ id, name, args }: Ask): Answer {
	try {
		if (!store) throw new Error('Expected the reader to have opened its file')
		current = { id, until: performance.now() + LONGEST_MS }
		refuseToGoOn()
		// The name decides which arguments come; it may be a name of no reading.
		const read = READS[name as ReadName] as ((store: unknown, args: unknown) => unknown) | undefined
		if (!read) throw new Error(`Cannot find read "${name}"`)
		// One transaction: lines, roles and rows are read as they were at one moment.
		const result = store.db.transaction(() => read(store, args)).deferred()
		return { id, ok: true, json: JSON.stringify(result ?? null) }
	} catch (error) {
		return toAnswer(id, error)
	}
}
