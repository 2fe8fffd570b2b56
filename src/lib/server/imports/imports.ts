/** Files on their way in, and out: looked at, brought in, undone, made. What is not brought in is removed after 48 hours. */
import { AppError } from '$lib/core/app-error.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { GivenImport, ImportState, Inspection, Undone } from '$lib/core/requests/imports.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { InspectRequest } from '../sources/look-through.ts'
import { applyCompared, dropStaged, startBringingIn, type Ways } from './bring-file-in.ts'
import { openGivenFiles, type GivenFile, type GivenFiles } from './given-files.ts'
import type { Importer } from './importer.ts'
import { makeFile, type FileAsked } from './make-file.ts'
import { undoInSteps } from './merge-run.ts'

/** What is settled of a file before it is looked at again; nothing the first time. */
type Settings = Omit<InspectRequest, 'path' | 'name'>

export interface Imports {
	take(name: string, body: ReadableStream<Uint8Array>, actor: Actor): Promise<GivenImport>
	/** `signal`: whoever asked has gone, and a large file is left. */
	inspect(id: string, settings: Settings, actor: Actor, signal?: AbortSignal): Promise<Inspection & { file: string }>
	/** `more`: other sheets of the file follow, so it is not removed when this one is in. */
	start(id: string, plan: unknown, actor: Actor, more?: boolean): Promise<void>
	/** Puts rows that were compared into their table; `state` tells how far it is and what came of it. */
	apply(id: string, partly: boolean, actor: Actor): void
	/** Takes the last file that was brought into a table out again. */
	undo(table: number, actor: Actor): Promise<Undone>
	state(id: string, actor: Actor): ImportState
	stop(id: string, actor: Actor): void
	/** Makes a file in the thread that reads files, and gives it to be sent; nothing of it stays on disk. */
	makeFile(file: FileAsked, pages: AsyncIterable<readonly WireRow[]>): Promise<ReadableStream>
	/** Pages as PDF, made in the same thread; its bytes as base64. */
	makePdf: Importer['makePdf']
	close(): Promise<void>
}

const SWEEP_MS = 3_600_000

/** Files on their way in and out: each is looked at, brought in or made by an importer of its own thread. */
export function openImports(folder: string, importer: Importer, threads: Ways['threads']): Imports {
	const ways = { importer, threads }
	const files = openGivenFiles(folder, threads.now)
	const sweeping = setInterval(() => void sweep(ways, files), SWEEP_MS)
	sweeping.unref()
	void sweep(ways, files)
	return {
		take: files.take,
		inspect: async (id, settings, actor, signal) =>
			inspect(importer, files, { file: files.get(id, actor), settings, signal }),
		start: async (id, asked, actor, more = false) =>
			startBringingIn(ways, files.get(id, actor), { asked, actor, more }),
		apply: (id, partly, actor) => applyCompared(ways, files.get(id, actor), { partly, actor }),
		undo: (table, actor) => undoInSteps(threads, { table, actor, now: threads.now() }),
		state: (id, actor) => files.get(id, actor).state,
		stop: (id, actor) => files.get(id, actor).stop?.(),
		makePdf: importer.makePdf,
		makeFile: (file, pages) => makeFile(importer, folder, file, pages),
		async close() {
			clearInterval(sweeping)
			await importer.close()
		}
	}
}

interface Looking {
	readonly file: GivenFile
	readonly settings: Settings
	readonly signal: AbortSignal | undefined
}

async function inspect(importer: Importer, files: GivenFiles, { file, settings, signal }: Looking) {
	const { path, name } = file
	if (file.gone) throw new AppError('not_found', `${name} has been brought in. Its table is listed at Sources.`)
	const plain = Object.values(settings).every((value) => value === undefined)
	const looked = (plain ? file.looked : undefined) ?? importer.inspect({ ...settings, path, name }, signal)
	if (plain) file.looked = looked
	try {
		return { ...(await looked), file: name }
	} catch (error) {
		// One that was left, or could not be read with these settings, may be looked at again.
		delete file.looked
		// A file that is refused is of no use to anybody: it goes at once.
		if (plain && error instanceof AppError && error.code === 'invalid' && !file.staged) await files.remove(file)
		throw error
	}
}

/** What nobody brought in, and what an earlier run left. */
async function sweep(ways: Ways, files: GivenFiles): Promise<void> {
	for (const file of files.old()) {
		await dropStaged(ways, file).catch((error: unknown) => console.error(error))
		await files.remove(file)
	}
	await files.sweepFolder()
}
