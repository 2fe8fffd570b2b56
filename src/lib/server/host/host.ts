/**
 * The main thread's hold on the workspace: the writer, the readers, the importer, the post and the queue. It holds no
 * connection of its own; every read and write is asked of a thread.
 */
import { randomUUID } from 'node:crypto'
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { lockWorkspace } from '../base/lock.ts'
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import { drawIcon, takeAppFile, type GivenAppFile, type IconAsked } from '../files/app-files.ts'
import { openFileStore, type FileStore } from '../files/file-store.ts'
import { startRunner, type Runner, type RunnerParts } from './runner.ts'
import { openLooks, type Looks } from '../people/looks.ts'
import { openPhones, type Phones } from '../people/phones.ts'
import { openStandIn, type StandIn } from '../stand-ins/provider.ts'
import { RETURN_PATH } from '../sign-in/outside-sign-in.ts'
import { openSmtp, type Sender } from '../post/smtp.ts'
import { openStandInPost } from '../stand-ins/mail.ts'
import { openStandInPrograms } from '../stand-ins/programs.ts'
import { openGuard } from '../outside/guard.ts'
import { openOutside } from '../outside/outside.ts'
import { openImporter } from '../imports/importer.ts'
import { openImports, type Imports } from '../imports/imports.ts'
import { openPushKeys } from './send-push.ts'
import { startIndexing } from './indexing.ts'
import { openThreads } from './open-threads.ts'
import { readKey } from '../base/workspace-key.ts'
import { openTries, type Tries } from './tries.ts'
import { watchHealth } from '../store/store-health.ts'
import { takeCoasts } from '../files/take-coasts.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Site } from '../threads/threads.ts'

export interface Host extends Site {
	readonly imports: Imports
	readonly looks: Looks
	/** Devices that follow looks. */
	readonly phones: Phones
	/** Copies that builders try things on. */
	readonly tries: Tries
	readonly files: FileStore
	/** Takes in a picture or a film for an app. */
	readonly takeAppFile: (given: GivenAppFile) => Promise<TakenAppFile>
	/** Draws the coasts where the rows of a table lie. */
	readonly takeCoasts: (asked: { readonly table: number; readonly actor: Actor }) => Promise<TakenAppFile>
	/** The picture that stands for an app, as a phone wants it. */
	readonly drawIcon: (asked: IconAsked) => Promise<Buffer>
	/** The stand-in for a provider of sign-in; in a demo only. */
	readonly standIn: StandIn | undefined
	readonly folder: string
	/** By which browsers know whose notices they let in. */
	readonly pushKey: string
	/** Whether the last small write went well. */
	isWell(): boolean
	close(): Promise<void>
}

export interface HostPlace {
	/** Where the workspace lies. */
	readonly folder: string
	/** Where the threads' scripts lie. */
	readonly scripts: string
	readonly origin: string
	/** By which server messages leave, and from whom; left out: the stand-in, which lets nothing out. */
	readonly smtp?: { readonly url: string; readonly from: Sender } | undefined
	/** Private networks that may be called, as the operator names them. */
	readonly calls?: string | undefined
	/** Told what the queue is about to do. */
	readonly at?: RunnerParts['at']
}

export async function openHost(place: HostPlace): Promise<Host> {
	mkdirSync(place.folder, { recursive: true, mode: 0o700 })
	const unlock = lockWorkspace(place.folder)
	try {
		return await openLocked(place, unlock)
	} catch (error) {
		unlock()
		throw error
	}
}

/** Where nothing leaves. */
const STAND_IN_SENDER: Sender = { name: 'Tin Shed', address: 'tin-shed@varrow.example' }

async function openLocked({ folder, scripts, origin, smtp, calls, at }: HostPlace, unlock: () => void): Promise<Host> {
	const key = readKey(folder)
	const queue: { runner?: Runner } = {}
	const threads = await openThreads({
		scripts,
		data: { file: join(folder, 'workspace.db'), key },
		onNotice(notice) {
			if (notice.jobs) queue.runner?.wake()
			// A table may have come in that is large enough to be indexed.
			if (notice.access) indexes.wake()
		},
		onWanted: (orders) => indexes.want(orders)
	})
	const indexes = startIndexing((wanted) => threads.write('tendIndexes', { wanted }))
	const { now } = threads
	await threads.write('dropUnregistered', { now: now() })
	const importer = openImporter(join(scripts, 'importer.js'))
	const imports = openImports(join(folder, 'staging'), importer, threads)
	const tries = openTries({ folder, scripts, key, now, copy: importer.copyDatabase })
	const files = openFileStore(join(folder, 'files'), threads)
	const { demo } = await threads.read('workspace', undefined)
	const post = smtp
		? openSmtp(smtp.url, smtp.from)
		: await openStandInPost((message) => threads.write('takeMessage', { ...message, now: now() }), STAND_IN_SENDER)
	const people = () => threads.read('standInPeople', undefined)
	const standIn = demo ? await openStandIn(people, origin + RETURN_PATH) : undefined
	const health = watchHealth(() => threads.write('tryWrite', { now: now() }))
	indexes.wake()
	const pushKeys = await openPushKeys(threads, key)
	const beyond = openOutside(openGuard(calls))
	const outside = smtp ? beyond : openStandInPrograms(beyond, (message) => threads.write('takeMessage', { ...message, now: now() })) // prettier-ignore
	queue.runner = startRunner({
		host: threads,
		outside,
		key,
		pushKeys,
		post,
		imports,
		files,
		origin,
		worker: randomUUID(),
		...(at ? { at } : {})
	})

	async function close(): Promise<void> {
		files.close()
		health.close()
		await queue.runner?.close()
		await indexes.close()
		await tries.close()
		await Promise.all([post.close(), standIn?.close(), imports.close()])
		await threads.close()
		unlock()
	}

	const looks = openLooks(now)
	const phones = openPhones(now)
	const parts = {
		pushKey: pushKeys.publicKey,
		imports,
		looks,
		phones,
		tries,
		files,
		standIn,
		folder,
		origin,
		key,
		close
	}
	const filesFolder = join(folder, 'files')
	return {
		...{ ...threads, isWell: health.isWell, ...parts },
		takeAppFile: (given) => takeAppFile(filesFolder, threads, given),
		takeCoasts: (asked) => takeCoasts(filesFolder, threads, asked),
		drawIcon: (asked) => drawIcon(filesFolder, asked)
	}
}
