/** Starts the threads that hold connections, and asks them by name. */
import { ownJson } from '$lib/core/text/own-json.ts'
import { join } from 'node:path'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { WantedOrder } from '../store/store.ts'
import type { ChangeNotice, ThreadData } from '../threads/protocol.ts'
import { openReaders } from '../threads/readers.ts'
import { startThread } from '../threads/thread.ts'
import type { Threads } from '../threads/threads.ts'
import { openChangeNotices } from './change-notices.ts'

export interface OpenThreads extends Threads {
	close(): Promise<void>
}

interface ThreadsParts {
	/** Where the threads' scripts lie. */
	readonly scripts: string
	readonly data: ThreadData
	/** After each commit, once whoever follows was told. */
	readonly onNotice: (notice: ChangeNotice) => void
	/** Orders for which rows were asked and no index served. */
	readonly onWanted: (wanted: readonly WantedOrder[]) => void
}

const READERS = 2
/** While some work at what takes long, others are started. */
const MOST_READERS = 6

export async function openThreads({ scripts, data, onNotice, onWanted }: ThreadsParts): Promise<OpenThreads> {
	const now = () => Date.now()
	const notices = openChangeNotices(now)
	const writer = await startThread(join(scripts, 'writer.js'), data, (notice) => {
		notices.tell(notice)
		onNotice(notice)
	})
	const readers = await openReaders({
		script: join(scripts, 'reader.js'),
		data,
		onNews: ({ wanted }) => onWanted(wanted),
		least: READERS,
		most: MOST_READERS
	})
	const ask = (name: string, args: unknown, signal?: AbortSignal): Promise<string> =>
		readers.ask(name, args, { signal, person: personIn(args) })
	return {
		read: async (name, args, signal) => ownJson(await ask(name, args, signal)),
		readJson: (name, args, signal) => ask(name, args, signal),
		write: async (name, args) => ownJson(await writer.ask(name, args)),
		onChange: notices.onChange,
		hasChangedSince: notices.hasChangedSince,
		connectToWriter: (port) => writer.connect(port),
		now,
		async close() {
			await readers.close()
			await writer.close()
		}
	}
}

/** Who asks, as reads name it: whoever looks as somebody else asks for themselves. */
function personIn(args: unknown): number | undefined {
	if (typeof args !== 'object' || args === null || !('actor' in args)) return undefined
	// Whoever asks a reader is an actor.
	const { person, lookedAtBy } = args.actor as Actor
	return lookedAtBy ?? person
}
