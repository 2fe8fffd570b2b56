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

export async function openReaders(parts: ReadersParts): Promise<Readers> {
	const { least, most, limitMs = LIMIT_MS, leaveMs = LEAVE_MS } = parts
	const seats: Seat[] = []
	const queue: Question[] = []
	let next = 1
	let isClosing = false
	let patience: NodeJS.Timeout | undefined

	async function addSeat(): Promise<void> {
		const seat: Seat = { reader: undefined, question: undefined, usedAt: performance.now() }
		seats.push(seat)
		await fill(seat)
	}

	async function fill(seat: Seat): Promise<void> {
		const { script, data, onNews } = parts
		const reader = await startReader({ script, data, onNews, onGone: () => void replace(seat) })
		if (isClosing || !seats.includes(seat)) return reader.kill()
		seat.reader = reader
		dispatch()
	}

	/** A reader that fell, or was ended, is started anew; one that cannot be leaves the program nothing to work with. */
	async function replace(seat: Seat): Promise<void> {
		seat.reader = undefined
		if (isClosing) return
		try {
			await fill(seat)
		} catch (error) {
			console.error(error)
			process.exit(70)
		}
	}

	function dispatch(): void {
		for (const seat of seats) {
			if (!seat.reader || seat.question) continue
			const at = queue.findIndex(({ person }) => person === undefined || inWork(person) < MOST_AT_ONCE)
			const [question] = at < 0 ? [] : queue.splice(at, 1)
			if (!question) break
			void work(seat, seat.reader, question)
		}
		if (queue.length === 0 || patience || isClosing) return
		patience = setTimeout(() => {
			patience = undefined
			const isFree = seats.some((seat) => !seat.reader || !seat.question)
			if (queue.length > 0 && !isFree && seats.length < most)
				void addSeat().catch((error: unknown) => console.error(error))
			dispatch()
		}, PATIENCE_MS)
	}

	function inWork(person: number): number {
		return seats.filter((seat) => seat.question?.person === person).length
	}

	async function work(seat: Seat, reader: ReaderProcess, question: Question): Promise<void> {
		const { id, name, args, signal, resolve, reject } = question
		seat.question = question
		signal?.removeEventListener('abort', question.withdraw)
		let isOver = false
		const end = (): void => {
			isOver = true
			reader.kill()
			reject(new AppError('busy', signal?.aborted ? 'This was stopped.' : TOO_LONG))
			seat.question = undefined
			void replace(seat)
		}
		let limit = setTimeout(end, limitMs)
		const leave = (): void => {
			reader.stop(id)
			clearTimeout(limit)
			limit = setTimeout(end, leaveMs)
		}
		signal?.addEventListener('abort', leave, { once: true })
		try {
			const answer = await reader.ask({ id, name, args })
			if (answer.ok) resolve(answer.json)
			else reject(toError(answer))
		} catch (error) {
			if (!isOver) reject(error instanceof Error ? error : new Error(String(error)))
		} finally {
			clearTimeout(limit)
			signal?.removeEventListener('abort', leave)
			if (!isOver) {
				seat.question = undefined
				seat.usedAt = performance.now()
				dispatch()
			}
		}
	}

	const tidy = setInterval(() => {
		const idle = seats.find((seat) => seat.reader && !seat.question && performance.now() - seat.usedAt > IDLE_MS)
		if (!idle || seats.length <= least) return
		seats.splice(seats.indexOf(idle), 1)
		idle.reader?.kill()
	}, IDLE_MS / 4)
	tidy.unref()

	await Promise.all(Array.from({ length: least }, addSeat))

	return {
		ask(name, args, { signal, person } = {}) {
			return new Promise((resolve, reject) => {
				if (signal?.aborted) return reject(new AppError('busy', 'This was stopped.'))
				if (person !== undefined && queue.filter((each) => each.person === person).length >= MOST_WAITING)
					return reject(new AppError('busy', 'Too much was asked for at once. Wait a moment, then try again.'))
				const withdraw = (): void => {
					queue.splice(queue.indexOf(question), 1)
					reject(new AppError('busy', 'This was stopped.'))
				}
				const question: Question = { id: next++, name, args, signal, person, resolve, reject, withdraw }
				queue.push(question)
				signal?.addEventListener('abort', withdraw, { once: true })
				dispatch()
			})
		},
		async close() {
			isClosing = true
			clearInterval(tidy)
			clearTimeout(patience)
			const asked = [...queue.splice(0), ...seats.flatMap(({ question }) => question ?? [])]
			for (const { reject } of asked) reject(new Error('Expected the program to go on, but it is closing'))
			for (const { reader } of seats) reader?.kill()
			await Promise.resolve()
		}
	}
}
