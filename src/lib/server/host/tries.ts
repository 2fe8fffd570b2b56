/**
 * Copies of the workspace that builders try things on in the Lookout: the first thing that is done there makes one, for
 * that builder alone. Nothing leaves a copy: its queue is emptied, and nobody works it off.
 *
 * A copy ends with the next change of the workspace's document (it would show lines and tables of yesterday), after two
 * hours without use, when a fifth is begun, and when the program stops.
 */
import { mkdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { AppError } from '$lib/core/app-error.ts'
import { openFileStore } from '../files/file-store.ts'
import type { Room } from '../web/app-place.ts'
import { openReaders } from '../threads/readers.ts'
import { startThread } from '../threads/thread.ts'
import type { Threads } from '../threads/threads.ts'

export interface Tries {
	/** The copy that a builder has begun under this version of the workspace's document. */
	find(looker: number, version: number): Room | undefined
	/** The same; made where there is none. */
	begin(looker: number, version: number): Promise<Room>
	/** Throws a builder's copy away. */
	end(looker: number): Promise<void>
	close(): Promise<void>
}

export interface TriesPlace {
	/** Where the workspace lies. */
	readonly folder: string
	/** Where the threads' scripts lie. */
	readonly scripts: string
	/** The workspace's key, as hex: ids are the same in a copy. */
	readonly key: string
	readonly now: () => number
	/** Copies one database file to another place, away from whoever must answer quickly. */
	readonly copy: (from: string, to: string) => Promise<void>
}

const MOST = 4
const LARGEST = 2 * 1024 ** 3
const IDLE_MS = 2 * 3_600_000

interface Try {
	readonly version: number
	readonly room: Promise<Opened>
	usedAt: number
}

interface Opened {
	readonly room: Room
	readonly close: () => Promise<void>
}

export function openTries(place: TriesPlace): Tries {
	return new Copies(place)
}

class Copies implements Tries {
	readonly #place: TriesPlace
	readonly #folder: string
	readonly #tries = new Map<number, Try>()
	readonly #ready = new Map<number, Room>()
	#next = 1

	constructor(place: TriesPlace) {
		this.#place = place
		this.#folder = join(place.folder, 'tries')
		// What an earlier run left.
		rmSync(this.#folder, { recursive: true, force: true })
	}

	find(looker: number, version: number): Room | undefined {
		const found = this.#tries.get(looker)
		if (found?.version !== version) return undefined
		found.usedAt = this.#place.now()
		return this.#ready.get(looker)
	}

	async begin(looker: number, version: number): Promise<Room> {
		const found = this.#tries.get(looker)
		if (found?.version === version) return (await found.room).room
		// Noted at once, so that whoever asks meanwhile waits for the same copy.
		this.#ready.delete(looker)
		const made: Try = { version, room: this.#replace(found, looker), usedAt: this.#place.now() }
		this.#tries.set(looker, made)
		try {
			const { room } = await made.room
			if (this.#tries.get(looker) === made) this.#ready.set(looker, room)
			return room
		} catch (error) {
			if (this.#tries.get(looker) === made) this.#tries.delete(looker)
			throw error
		}
	}

	async end(looker: number): Promise<void> {
		const found = this.#tries.get(looker)
		this.#tries.delete(looker)
		this.#ready.delete(looker)
		await shut(found)
	}

	async close(): Promise<void> {
		await Promise.all([...this.#tries.keys()].map((looker) => this.end(looker)))
	}

	async #replace(old: Try | undefined, looker: number): Promise<Opened> {
		await shut(old)
		await this.#makeWay(looker)
		return this.#open(looker)
	}

	/** Ends those that nobody used for long, and the longest unused where there would be too many. */
	async #makeWay(except: number): Promise<void> {
		const others = [...this.#tries].filter(([looker]) => looker !== except)
		const idle = others.filter(([, { usedAt }]) => this.#place.now() - usedAt > IDLE_MS)
		for (const [looker] of idle) await this.end(looker)
		const busy = others.filter((each) => !idle.includes(each)).sort(([, a], [, b]) => a.usedAt - b.usedAt)
		for (const [looker] of busy.slice(0, Math.max(0, busy.length - MOST + 1))) await this.end(looker)
	}

	async #open(looker: number): Promise<Opened> {
		const from = join(this.#place.folder, 'workspace.db')
		if (statSync(from).size > LARGEST)
			throw new AppError('invalid', 'The workspace is larger than 2 GB, so no copy of it is made to try things on.')
		mkdirSync(this.#folder, { recursive: true, mode: 0o700 })
		const file = join(this.#folder, `${looker}-${this.#next++}.db`)
		await this.#place.copy(from, file)
		const opened = await openRoom(file, this.#place)
		await opened.room.write('becomeTry', undefined)
		return opened
	}
}

async function shut(found: Try | undefined): Promise<void> {
	await found?.room.then((opened) => opened.close()).catch(() => undefined)
}

async function openRoom(
	file: string,
	{ scripts, key, now }: Pick<TriesPlace, 'scripts' | 'key' | 'now'>
): Promise<Opened> {
	const data = { file, key }
	const writer = await startThread(join(scripts, 'writer.js'), data, () => undefined)
	const script = join(scripts, 'reader.js')
	const reader = await openReaders({ script, data, onNews: () => undefined, least: 1, most: 1 })
	const doors: Pick<Threads, 'read' | 'write'> = {
		read: async (name, args, signal) => JSON.parse(await reader.ask(name, args, { signal })),
		write: async (name, args) => JSON.parse(await writer.ask(name, args))
	}
	// Files that are given in here go with the copy; those of the workspace stay where they are.
	const folder = `${file}-files`
	const files = openFileStore(folder, { ...doors, now })
	return {
		room: { ...doors, files },
		async close() {
			files.close()
			await Promise.all([reader.close(), writer.close()])
			for (const end of ['', '-wal', '-shm']) rmSync(`${file}${end}`, { force: true })
			rmSync(folder, { recursive: true, force: true })
		}
	}
}
