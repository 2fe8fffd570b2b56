/**
 * What the threads answer: every read and write that there is, by name. Whoever works in the main thread and needs the
 * workspace takes as much of this as it asks for.
 */
import type { MessagePort } from 'node:worker_threads'
import type { ChangeNotice } from './protocol.ts'
import type { READS, ReadName } from './reads.ts'
import type { WRITES, WriteName } from './writes.ts'

type Args<F> = F extends (store: never, args: infer A) => unknown ? A : undefined
type Result<F> = F extends (...args: never[]) => infer R ? R : never

export interface Threads {
	/** `signal`: whoever asked waits no longer, so a long search may end. */
	read<N extends ReadName>(
		name: N,
		args: Args<(typeof READS)[N]>,
		signal?: AbortSignal
	): Promise<Result<(typeof READS)[N]>>
	/** The answer as JSON text, to be handed on as it is. */
	readJson<N extends ReadName>(name: N, args: Args<(typeof READS)[N]>, signal?: AbortSignal): Promise<string>
	write<N extends WriteName>(name: N, args: Args<(typeof WRITES)[N]>): Promise<Result<(typeof WRITES)[N]>>
	/** Calls back after every commit that changed what people see; the result ends it. */
	onChange(listener: (notice: ChangeNotice) => void): () => void
	/** Whether any of these tables, or who may see what, changed at or after a moment (epoch ms). */
	hasChangedSince(since: number, tables: ReadonlySet<number>): boolean
	connectToWriter(port: MessagePort): void
	/** Epoch ms. */
	now(): number
}

/** The same, with what its secrets are sealed with and where people reach it. */
export interface Site extends Threads {
	/** The workspace's key, as hex. */
	readonly key: string
	readonly origin: string
}
