/**
 * The importer thread: reads files that were given in, away from everything that must answer quickly, and hands their
 * rows to the writer by a port of their own.
 */
import { parentPort, type MessagePort } from 'node:worker_threads'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { Making } from '../exports/file-cell.ts'
import type { Pages } from '../exports/make-pdf.ts'
import { beginFile, type FileToMake } from '../exports/make-file.ts'
import { bringIn, type BringIn } from '../sources/bring-in.ts'
import { copyDatabase } from '../store/copy-database.ts'
import { inspectFile } from '../sources/inspect.ts'
import type { InspectRequest } from '../sources/look-through.ts'
import { toAnswer, toError, type Answer } from './protocol.ts'

type FromMain =
	| { readonly id: number; readonly name: 'inspect'; readonly args: InspectRequest }
	| { readonly id: number; readonly name: 'beginFile'; readonly args: FileToMake }
	| {
			readonly id: number
			readonly name: 'addToFile'
			readonly args: { readonly path: string; readonly rows: readonly WireRow[] }
	  }
	| { readonly id: number; readonly name: 'endFile'; readonly args: { readonly path: string } }
	| { readonly id: number; readonly name: 'makePdf'; readonly args: Pages }
	| {
			readonly id: number
			readonly name: 'copyDatabase'
			readonly args: { readonly from: string; readonly to: string }
	  }
	| { readonly id: number; readonly name: 'bringIn'; readonly args: BringIn; readonly port: MessagePort }
	| { readonly stop: number }

const stopped = new Set<number>()
/** Files that are being made, by where they lie. */
const making = new Map<string, Making>()

parentPort?.on('message', (message: FromMain) => {
	if ('stop' in message) stopped.add(message.stop)
	else void answer(message)
})
parentPort?.postMessage('ready')

async function answer(message: Exclude<FromMain, { stop: number }>): Promise<void> {
	const { id } = message
	try {
		const result = await work(message)
		parentPort?.postMessage({ id, ok: true, json: JSON.stringify(result ?? null) } satisfies Answer)
	} catch (error) {
		parentPort?.postMessage(toAnswer(id, error))
	}
}

function work(message: Exclude<FromMain, { stop: number }>): Promise<unknown> {
	switch (message.name) {
		case 'inspect':
			return inspectFile(message.args)
		case 'beginFile':
			return begin(message.args)
		case 'addToFile':
			return Promise.resolve(making.get(message.args.path)?.add(message.args.rows))
		case 'endFile':
			return endFile(message.args.path)
		case 'makePdf':
			return pdfOf(message.args)
		case 'copyDatabase':
			return Promise.resolve(copyDatabase(message.args))
		case 'bringIn':
			return run(message)
	}
}

/** Loaded when it is wanted, as the makers of workbooks are. */
async function pdfOf(pages: Pages): Promise<string> {
	const { makePdf } = await import('../exports/make-pdf.ts')
	return (await makePdf(pages)).toString('base64')
}

async function begin(file: FileToMake): Promise<void> {
	making.set(file.path, await beginFile(file))
}

async function endFile(path: string): Promise<void> {
	const file = making.get(path)
	making.delete(path)
	await file?.end()
}

async function run({ id, args, port }: Extract<FromMain, { name: 'bringIn' }>) {
	const waiting = new Map<number, { resolve: () => void; reject: (error: Error) => void }>()
	let next = 1
	port.on('message', (reply: Answer) => {
		const asked = waiting.get(reply.id)
		waiting.delete(reply.id)
		if (reply.ok) asked?.resolve()
		else asked?.reject(toError(reply))
	})
	const write = (batch: unknown) =>
		new Promise<void>((resolve, reject) => {
			const batchId = next++
			waiting.set(batchId, { resolve, reject })
			port.postMessage({ id: batchId, name: 'writeBatch', args: batch })
		})
	try {
		return await bringIn(args, write, {
			onProgress: (progress) => parentPort?.postMessage({ progress, id }),
			isStopped: () => stopped.delete(id)
		})
	} finally {
		port.close()
	}
}
