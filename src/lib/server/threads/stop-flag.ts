/**
 * By what a process that is at work is told that nobody waits for its answer any more: while it works it reads no messages,
 * but whoever works looks here from time to time. Four bytes of a file without a name, which both hold open (1 µs a look).
 */
import { closeSync, mkdtempSync, openSync, readSync, rmSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export interface StopFlag {
	/** For the process that is started: it finds the file under this descriptor of its own. */
	readonly fd: number
	/** Says that the answer to a question is not wanted. `id`: from 1 on. */
	stop(id: number): void
	close(): void
}

const BYTES = 4

export function makeStopFlag(): StopFlag {
	const folder = mkdtempSync(join(tmpdir(), 'tin-shed-stop-'))
	const fd = openSync(join(folder, 'flag'), 'w+', 0o600)
	// Open in both processes it lives on, and is gone with them.
	rmSync(folder, { recursive: true, force: true })
	const write = (id: number): void => {
		const bytes = Buffer.alloc(BYTES)
		bytes.writeUInt32LE(id >>> 0)
		writeSync(fd, bytes, 0, BYTES, 0)
	}
	write(0)
	return { fd, stop: write, close: () => closeSync(fd) }
}

/** Whether the answer to a question is not wanted any more. */
export function isStopped(fd: number, id: number): boolean {
	const bytes = Buffer.alloc(BYTES)
	readSync(fd, bytes, 0, BYTES, 0)
	return bytes.readUInt32LE() === id >>> 0
}
