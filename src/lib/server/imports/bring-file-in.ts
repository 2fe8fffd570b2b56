/** Brings a file that was given in into a new table, or compares it with one that is there and then brings it into that. */
import { MessageChannel } from 'node:worker_threads'
import { z } from 'zod'
import { AppError } from '$lib/core/app-error.ts'
import { importPlanSchema, type ImportPlan } from '$lib/core/exchange/plan.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Begun, BroughtIn } from '../sources/bring-in.ts'
import type { Threads } from '../threads/threads.ts'
import { removeBytes, type GivenFile } from './given-files.ts'
import type { Importer } from './importer.ts'
import { applyInSteps, compareInSteps, type Watch } from './merge-run.ts'

export interface Ways {
	readonly importer: Importer
	readonly threads: Pick<Threads, 'read' | 'write' | 'connectToWriter' | 'now'>
}

interface Starting {
	/** A plan as it came in. */
	readonly asked: unknown
	readonly actor: Actor
	/** Other sheets of the file follow, so it is not removed when this one is in. */
	readonly more: boolean
}

/** Returns once it is under way; the file's state tells how far it is. */
export async function startBringingIn(ways: Ways, file: GivenFile, { asked, actor, more }: Starting): Promise<void> {
	const { importer, threads } = ways
	if (file.state.state === 'running') throw new AppError('busy', 'This file is being brought in already.')
	const plan = readPlan(asked)
	await dropStaged(ways, file)
	const begun = await threads.write(plan.into ? 'beginMerge' : 'beginImport', { plan, actor })
	file.state = { state: 'running', doing: 'reading', done: 0, of: 0 }
	const { port1, port2 } = new MessageChannel()
	threads.connectToWriter(port1)
	const args = { path: file.path, name: file.name, plan, begun, now: threads.now(), person: actor.person }
	const run = importer.bringIn(args, port2, ({ done, of }) => {
		file.state = { state: 'running', doing: 'reading', done, of }
	})
	file.stop = run.stop
	const finish = plan.into ? compare : register
	void run.done
		.then((brought) => finish(ways, file, { begun, plan, actor, brought, more }))
		.catch((error: unknown) => fail(ways, file, { begun, error, remedy: 'Nothing was brought in.' }))
}

interface Applying {
	/** Whether what fits goes in where some of it does not. */
	readonly partly: boolean
	readonly actor: Actor
}

/** Puts rows that were compared into their table; the file's state tells how far it is and what came of it. */
export function applyCompared(ways: Ways, file: GivenFile, { partly, actor }: Applying): void {
	const { state, staged } = file
	if (state.state !== 'compared' || !staged) throw new AppError('invalid', 'Compare the file with the table first.')
	const { unread, unreadCount, comparison: expected } = state
	// Meanwhile it is neither compared nor in, so that a second press finds nothing to do.
	file.state = { state: 'running', doing: 'comparing', done: 0, of: expected.rows }
	const asked = { ...staged, actor, now: ways.threads.now(), file: file.name, expected, partly }
	void applyInSteps(ways.threads, asked, watch(file))
		.then((outcome) => {
			if ('refused' in outcome) {
				const { refused: message, misfits, comparison } = outcome
				file.state = { state: 'compared', comparison, unread, unreadCount, refused: { message, misfits } }
			} else {
				file.state = { state: 'merged', table: staged.plan.into?.table ?? 0, ...outcome.merged }
				delete file.staged
			}
		})
		.catch((error: unknown) =>
			fail(ways, file, { begun: staged.begun, error, remedy: 'What came in of it can be undone at Sources.' })
		)
}

/** Rows that waited to go into a table wait no longer. */
export async function dropStaged({ threads }: Ways, file: GivenFile): Promise<void> {
	if (file.staged) await threads.write('dropImport', { table: file.staged.begun.table })
	delete file.staged
}

function readPlan(asked: unknown): ImportPlan {
	const parsed = importPlanSchema.safeParse(asked)
	if (parsed.success) return parsed.data
	const message = parsed.error.issues[0]?.message ?? 'The settings are not complete.'
	throw new AppError('invalid', message, { issues: z.treeifyError(parsed.error) })
}

interface Read {
	readonly begun: Begun
	readonly plan: ImportPlan
	readonly actor: Actor
	readonly brought: BroughtIn
	readonly more: boolean
}

async function register({ threads }: Ways, file: GivenFile, read: Read): Promise<void> {
	const { begun, plan, actor, brought, more } = read
	const { rows, references, ...told } = brought
	const made = { begun, plan, file: file.name, rows, references, actor, now: threads.now() }
	const { table } = await threads.write('finishImport', made)
	file.state = { state: 'done', table, rows, ...told }
	if (more) return
	file.gone = true
	await removeBytes(file.path)
}

async function compare({ threads }: Ways, file: GivenFile, { begun, plan, actor, brought }: Read): Promise<void> {
	const comparison = await compareInSteps(threads, { begun, plan, actor, now: threads.now() }, watch(file))
	const { unread, unreadCount } = brought
	file.staged = { begun, plan }
	file.state = { state: 'compared', comparison, unread, unreadCount }
}

/** `remedy`: how things stand where the program itself failed. */
async function fail(
	{ threads }: Ways,
	file: GivenFile,
	{ begun, error, remedy }: { begun: Begun; error: unknown; remedy: string }
): Promise<void> {
	await threads.write('dropImport', { table: begun.table })
	delete file.staged
	if (!(error instanceof AppError)) console.error(error)
	const message = error instanceof AppError ? error.message : `Something went wrong on our side. ${remedy}`
	file.state = { state: 'failed', message }
}

/** Tells how far steps of the writer are, and stops them when it is asked to. */
function watch(file: GivenFile): Watch {
	let stopped = false
	file.stop = () => (stopped = true)
	return {
		onProgress: (doing, done, of) => (file.state = { state: 'running', doing, done, of }),
		isStopped: () => stopped
	}
}
