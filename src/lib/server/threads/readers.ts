/**
 * The readers: processes that answer one question each at a time. A question goes to one that is free; where all are at work,
 * another is started, up to a bound, and let go again when it was idle for a while.
 *
 * - One person has no more than a few questions in work, so that nobody's long ones take all readers.
 * - What nobody waits for is never begun, and left when it was begun.
 * - A reader that is past its limit, or does not leave what it was told to, is ended, and another takes its place.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { Lacking, ThreadData } from './protocol.ts'
import { toError } from './protocol.ts'
import { startReader, type ReaderProcess } from './reader-process.ts'

export interface Asker {
	/** Nobody waits for the answer any more. */
	readonly signal?: AbortSignal | undefined
	/** Who asks; what nobody in particular asks is never held back. */
	readonly person?: number | undefined
}

export interface Readers {
	/** The result as JSON text. */
	ask(name: string, args: unknown, asking?: Asker): Promise<string>
	close(): Promise<void>
}

export interface ReadersParts {
	readonly script: string
	readonly data: ThreadData
	readonly onNews: (news: Lacking) => void
	/** How many there are always, and at most. */
	readonly least: number
	readonly most: number
	/** When a question is long past what a reader itself allows (`reader.ts`). */
	readonly limitMs?: number
	/** How long a reader may take to leave a question that it was told to leave. */
	readonly leaveMs?: number
}

/** Questions of one person that are in work at once, and that wait. */
const MOST_AT_ONCE = 2
const MOST_WAITING = 60
const LIMIT_MS = 35_000
const LEAVE_MS = 2_000
/** Another reader is started when a question waited so long: short ones are over by then. */
const PATIENCE_MS = 40
const IDLE_MS = 60_000

const TOO_LONG = 'This took too long and was stopped. Narrow it down, or order by another column.'

interface Question extends Asker {
	/** Out of the queue, and refused: called when nobody waits any more. */
	readonly withdraw: () => void
	readonly id: number
	readonly name: string
	readonly args: unknown
	readonly resolve: (json: string) => void
	readonly reject: (error: Error) => void
}

interface Seat {
	reader: ReaderProcess | undefined
	question: Question | undefined
	usedAt: number
}

/** Between `least` and `most` processes that read, each with one question at a time. */
export async function openReaders(parts: ReadersParts): Promise<Readers> {
	const pool = new Pool(parts)
	await Promise.all(Array.from({ length: parts.least }, () => pool.addSeat()))
	return pool
}

/** Seats, each with a reader and the question it is at, and the questions that wait for one. */
class Pool implements Readers {
	readonly #parts: ReadersParts
	readonly #seats: Seat[] = []
	readonly #queue: Question[] = []
	readonly #tidying: NodeJS.Timeout
	#patience: NodeJS.Timeout | undefined
	#next = 1
	#isClosing = false

	constructor(parts: ReadersParts) {
		this.#parts = parts
		this.#tidying = setInterval(() => this.#letGoOfIdle(), IDLE_MS / 4)
		this.#tidying.unref()
	}

	async addSeat(): Promise<void> {
		const seat: Seat = { reader: undefined, question: undefined, usedAt: performance.now() }
		this.#seats.push(seat)
		await this.#fill(seat)
	}

	ask(name: string, args: unknown, { signal, person }: Asker = {}): Promise<string> {
		return new Promise((resolve, reject) => {
			if (signal?.aborted) return reject(stopped())
			if (person !== undefined && this.#queue.filter((each) => each.person === person).length >= MOST_WAITING)
				return reject(new AppError('busy', 'Too much was asked for at once. Wait a moment, then try again.'))
			const withdraw = (): void => {
				this.#queue.splice(this.#queue.indexOf(question), 1)
				reject(stopped())
			}
			const question: Question = { id: this.#next++, name, args, signal, person, resolve, reject, withdraw }
			this.#queue.push(question)
			signal?.addEventListener('abort', withdraw, { once: true })
			this.#dispatch()
		})
	}

	async close(): Promise<void> {
		this.#isClosing = true
		clearInterval(this.#tidying)
		clearTimeout(this.#patience)
		const asked = [...this.#queue.splice(0), ...this.#seats.flatMap(({ question }) => question ?? [])]
		for (const { reject } of asked) reject(new Error('Expected the program to go on, but it is closing'))
		for (const { reader } of this.#seats) reader?.kill()
		await Promise.resolve()
	}

	async #fill(seat: Seat): Promise<void> {
		const { script, data, onNews } = this.#parts
		const reader = await startReader({ script, data, onNews, onGone: () => void this.#replace(seat) })
		if (this.#isClosing || !this.#seats.includes(seat)) return reader.kill()
		seat.reader = reader
		this.#dispatch()
	}

	/** A reader that fell, or was ended, is started anew; one that cannot be leaves the program nothing to work with. */
	async #replace(seat: Seat): Promise<void> {
		seat.reader = undefined
		if (this.#isClosing) return
		try {
			await this.#fill(seat)
		} catch (error) {
			console.error(error)
			process.exit(70)
		}
	}

	#dispatch(): void {
		for (const seat of this.#seats) {
			if (!seat.reader || seat.question) continue
			const at = this.#queue.findIndex(({ person }) => person === undefined || this.#inWork(person) < MOST_AT_ONCE)
			const [question] = at < 0 ? [] : this.#queue.splice(at, 1)
			if (!question) break
			void this.#work(seat, seat.reader, question)
		}
		if (this.#queue.length === 0 || this.#patience || this.#isClosing) return
		this.#patience = setTimeout(() => {
			this.#patience = undefined
			this.#growWhereAllAreAtWork()
			this.#dispatch()
		}, PATIENCE_MS)
	}

	#growWhereAllAreAtWork(): void {
		const isFree = this.#seats.some((seat) => !seat.reader || !seat.question)
		if (this.#queue.length === 0 || isFree || this.#seats.length >= this.#parts.most) return
		this.addSeat().catch((error: unknown) => console.error(error))
	}

	#inWork(person: number): number {
		return this.#seats.filter((seat) => seat.question?.person === person).length
	}

	async #work(seat: Seat, reader: ReaderProcess, question: Question): Promise<void> {
		seat.question = question
		question.signal?.removeEventListener('abort', question.withdraw)
		const isEnded = await this.#answer(reader, question)
		seat.question = undefined
		if (isEnded) return void this.#replace(seat)
		seat.usedAt = performance.now()
		this.#dispatch()
	}

	/** Has a reader answer, and says whether it had to be ended: it was past its limit, or did not leave in time. */
	#answer(reader: ReaderProcess, { id, name, args, signal, resolve, reject }: Question): Promise<boolean> {
		const { limitMs = LIMIT_MS, leaveMs = LEAVE_MS } = this.#parts
		return new Promise((over) => {
			const end = (): void => {
				reader.kill()
				reject(signal?.aborted ? stopped() : new AppError('busy', TOO_LONG))
				done(true)
			}
			let limit = setTimeout(end, limitMs)
			const leave = (): void => {
				reader.stop(id)
				clearTimeout(limit)
				limit = setTimeout(end, leaveMs)
			}
			const done = (isEnded: boolean): void => {
				clearTimeout(limit)
				signal?.removeEventListener('abort', leave)
				over(isEnded)
			}
			signal?.addEventListener('abort', leave, { once: true })
			reader
				.ask({ id, name, args })
				.then((answer) => (answer.ok ? resolve(answer.json) : reject(toError(answer))))
				.catch((error: unknown) => reject(error instanceof Error ? error : new Error(String(error))))
				.finally(() => done(false))
		})
	}

	#letGoOfIdle(): void {
		const idle = this.#seats.find((seat) => seat.reader && !seat.question && performance.now() - seat.usedAt > IDLE_MS)
		if (!idle || this.#seats.length <= this.#parts.least) return
		this.#seats.splice(this.#seats.indexOf(idle), 1)
		idle.reader?.kill()
	}
}

function stopped(): AppError {
	return new AppError('busy', 'This was stopped.')
}
