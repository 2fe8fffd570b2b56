/**
 * Questions whose answer nobody waits for any more. A thread that is at work reads no messages, so it is told through
 * memory that both share; whoever works looks there from time to time.
 */
const SLOTS = 256

export type Stops = Int32Array<SharedArrayBuffer>

export function makeStops(): Stops {
	return new Int32Array(new SharedArrayBuffer(SLOTS * Int32Array.BYTES_PER_ELEMENT))
}

/** @param id of a question, from 1 on */
export function stopQuestion(stops: Stops, id: number): void {
	Atomics.store(stops, id % SLOTS, id | 0)
}

export function isStopped(stops: Stops, id: number): boolean {
	return Atomics.load(stops, id % SLOTS) === (id | 0)
}
