/**
 * What reads files and makes them, in threads of their own, so that one big file holds up neither another person's small one
 * nor an export: small files share a thread, each large one has its own for as long as it is looked at or brought in (two at a
 * time, others wait), and what leaves has a third. A thread that fell is started anew when it is next needed.
 */
import { statSync } from 'node:fs'
import type { MessagePort } from 'node:worker_threads'
import { AppError } from '$lib/core/app-error.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { Pages } from '../exports/make-pdf.ts'
import type { FileToMake } from '../exports/make-file.ts'
import type { BringIn, BroughtIn } from '../sources/bring-in.ts'
import type { Progress } from '../sources/batch-writer.ts'
import { startImporterThread, type ImporterThread } from './importer-thread.ts'
import type { Inspection } from '$lib/core/requests/imports.ts'
import type { InspectRequest } from '../sources/look-through.ts'

export interface Importer {
	/** `signal`: nobody waits for it any more; a large file is left at once. */
	inspect(request: InspectRequest, signal?: AbortSignal): Promise<Inspection>
	/** Makes a file page by page, from its beginning to its end. */
	beginFile(file: FileToMake): Promise<void>
	addToFile(path: string, rows: readonly WireRow[]): Promise<void>
	endFile(path: string): Promise<void>
	/** Pages as PDF, its bytes as base64. */
	makePdf(pages: Pages): Promise<string>
	copyDatabase(from: string, to: string): Promise<void>
	bringIn(
		args: BringIn,
		port: MessagePort,
		onProgress: (progress: Progress) => void
	): { done: Promise<BroughtIn>; stop: () => void }
	close(): Promise<void>
}

/** A workbook unfolds to some ten times as much; up to here it is read in well under a second. */
const SMALL_BYTES = 1024 * 1024
const MOST_LARGE = 2
const MOST_WAITING = 20
const CLOSING = 'The program is closing. Give the file in again.'

/** Threads that read files: small ones share one, each large one has its own. */
export function openImporter(script: string): Importer {
	const small = sharedThread(script)
	const leaving = sharedThread(script)
	const large = largeThreads(script)
	const isLarge = (path: string): boolean => (statSync(path, { throwIfNoEntry: false })?.size ?? 0) > SMALL_BYTES
	return {
		inspect: (request, signal) =>
			isLarge(request.path)
				? large.run((thread) => thread.ask<Inspection>('inspect', request).done, signal)
				: small.get().ask<Inspection>('inspect', request).done,
		bringIn(args, port, onProgress) {
			if (!isLarge(args.path)) return small.get().ask<BroughtIn>('bringIn', args, { port, onProgress })
			let stop = (): void => undefined
			const done = large.run((thread) => {
				const asked = thread.ask<BroughtIn>('bringIn', args, { port, onProgress })
				stop = asked.stop
				return asked.done
			})
			return { done, stop: () => stop() }
		},
		beginFile: async (file) => void (await leaving.get().ask('beginFile', file).done),
		addToFile: async (path, rows) => void (await leaving.get().ask('addToFile', { path, rows }).done),
		endFile: async (path) => void (await leaving.get().ask('endFile', { path }).done),
		makePdf: (pages) => leaving.get().ask<string>('makePdf', pages).done,
		copyDatabase: async (from, to) => void (await leaving.get().ask('copyDatabase', { from, to }).done),
		close: async () => void (await Promise.all([small.end(), leaving.end(), large.end()]))
	}
}

interface SharedThread {
	get(): ImporterThread
	end(): Promise<void>
}

function sharedThread(script: string): SharedThread {
	let thread: ImporterThread | undefined
	return {
		get() {
			thread ??= startImporterThread(script, () => (thread = undefined))
			return thread
		},
		end: async () => thread?.end(CLOSING)
	}
}

interface LargeThreads {
	run<T>(work: (thread: ImporterThread) => Promise<T>, signal?: AbortSignal): Promise<T>
	end(): Promise<void>
}

function largeThreads(script: string): LargeThreads {
	const running = new Set<ImporterThread>()
	const waiting: (() => void)[] = []

	async function turn(signal: AbortSignal | undefined): Promise<void> {
		if (waiting.length >= MOST_WAITING)
			throw new AppError('busy', 'Many large files are being read just now. Wait a moment, then try again.')
		if (running.size >= MOST_LARGE) await new Promise<void>((resolve) => waiting.push(resolve))
		if (signal?.aborted) {
			waiting.shift()?.()
			throw new AppError('busy', 'This was stopped.')
		}
	}

	return {
		async run(work, signal) {
			await turn(signal)
			const thread = startImporterThread(script, () => undefined)
			running.add(thread)
			const leave = (): void => void thread.end('This was stopped.')
			signal?.addEventListener('abort', leave, { once: true })
			try {
				return await work(thread)
			} finally {
				signal?.removeEventListener('abort', leave)
				running.delete(thread)
				await thread.end(CLOSING)
				waiting.shift()?.()
			}
		},
		end: async () => void (await Promise.all([...running].map((thread) => thread.end(CLOSING))))
	}
}
