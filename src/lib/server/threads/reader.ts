/**
 * A reader thread: a read-only connection that answers one question at a time, each in one snapshot, as JSON text.
 */
import { parentPort, workerData } from 'node:worker_threads'
import { openForReading } from '../db/open.ts'
import { openRowIds } from '../rows/row-ids.ts'
import { openStore } from '../store.ts'
import { toAnswer, type Answer, type Ask, type ThreadData } from './protocol.ts'
import { READS, type ReadName } from './reads.ts'

const { file, key } = workerData as ThreadData
const store = openStore(openForReading(file), openRowIds(Buffer.from(key, 'hex')))

parentPort?.on('message', (ask: Ask) => parentPort?.postMessage(answer(ask)))
parentPort?.postMessage('ready')

function answer({ id, name, args }: Ask): Answer {
	try {
		const read = READS[name as ReadName] as ((store: unknown, args: unknown) => unknown) | undefined
		if (!read) throw new Error(`Cannot find read "${name}"`)
		// One transaction: lines, roles and rows are read as they were at one moment.
		const result = store.db.transaction(() => read(store, args)).deferred()
		return { id, ok: true, json: JSON.stringify(result ?? null) }
	} catch (error) {
		return toAnswer(id, error)
	}
}
