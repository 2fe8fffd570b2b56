/**
 * Server-sent events for an open page: in which of its tables something changed, never what; the page then reads again what it may. A stream
 * lasts no longer than the session that opened it.
 */
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Threads } from '../threads/threads.ts'

export interface Listening {
	readonly actor: Actor
	/** Of the session that asks. */
	readonly tokenHash: string
	/** The app whose draft is shown, in a Lookout. */
	readonly draftOf?: number | undefined
	/** The tables that the page shows, by number; of those in which nothing is seen nothing is told. */
	readonly tables: readonly number[]
	/** Epoch ms at which the page was read: what changed between that and this connection would be missed otherwise. */
	readonly since?: number | undefined
	/** Aborted when the browser is gone. */
	readonly signal: AbortSignal
}

const BEAT_MS = 25_000
/** Where anything may have changed: who may see what, or what happened while nobody listened. */
const ALL = changed('all')

/** Where whoever listens was told something. */
const TOLD = 'event: told\ndata: 1\n\n'

function changed(tables: readonly number[] | 'all'): string {
	return `event: changed\ndata: ${JSON.stringify(tables)}\n\n`
}

/** Server-sent events about tables that this person sees something of. */
export async function openChangeStream(host: Threads, listening: Listening): Promise<ReadableStream<Uint8Array>> {
	return new ReadableStream(new ChangeSource(host, listening, await readSeen(host, listening)))
}

/** Which of the tables asked for hold something that is seen. */
async function readSeen(host: Threads, { tables, actor }: Listening): Promise<ReadonlySet<number>> {
	return new Set(await host.read('seenTables', { tables: [...tables], actor, now: host.now() }))
}

class ChangeSource implements UnderlyingDefaultSource<Uint8Array> {
	readonly #host: Threads
	readonly #listening: Listening
	readonly #encoder = new TextEncoder()
	#seen: ReadonlySet<number>
	#isOver = false
	#stopListening = (): void => {}
	#beat: NodeJS.Timeout | undefined

	constructor(host: Threads, listening: Listening, seen: ReadonlySet<number>) {
		this.#host = host
		this.#listening = listening
		this.#seen = seen
	}

	start(controller: ReadableStreamDefaultController<Uint8Array>): void {
		const send = (text: string): void => {
			if (!this.#isOver) controller.enqueue(this.#encoder.encode(text))
		}
		const end = (): void => {
			if (this.#isOver) return
			send(ALL)
			this.cancel()
			controller.close()
		}
		const lookAgain = (): void => {
			this.#lookAgain().then((isSignedIn) => isSignedIn || end(), end)
		}
		this.#stopListening = this.#host.onChange(({ access, tables, sessions, drafts, told }) => {
			const seen = [...tables].filter((table) => this.#seen.has(table))
			const isWritten = this.#listening.draftOf !== undefined && drafts.includes(this.#listening.draftOf)
			if (access || isWritten) send(ALL)
			else if (seen.length > 0) send(changed(seen))
			if (told.includes(this.#listening.actor.person)) send(TOLD)
			if (access || sessions) lookAgain()
		})
		this.#beat = setInterval(() => {
			send(': still here\n\n')
			lookAgain()
		}, BEAT_MS)
		send('retry: 2000\n\n')
		const { since, signal } = this.#listening
		if (since !== undefined && this.#host.hasChangedSince(since, this.#seen)) send(ALL)
		signal.addEventListener('abort', () => this.cancel())
	}

	cancel(): void {
		this.#isOver = true
		clearInterval(this.#beat)
		this.#stopListening()
	}

	/** False where the session has ended: the page then reads again, and is told to sign in. */
	async #lookAgain(): Promise<boolean> {
		const { tokenHash, actor } = this.#listening
		const session = await this.#host.read('session', { tokenHash, now: this.#host.now() })
		// Whoever is looked as in a Lookout is not the one who is signed in.
		if (session?.person !== (actor.lookedAtBy ?? actor.person)) return false
		this.#seen = await readSeen(this.#host, this.#listening)
		return true
	}
}
