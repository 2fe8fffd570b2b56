/** The demo's chooser of people: offered only where the workspace is marked as demo and the request came over loopback. */
import type { Threads } from '../threads/threads.ts'

const LOOPBACK = new Set(['127.0.0.1', '::1', '::ffff:127.0.0.1'])

/** Whether anybody may come in as one of the demo's people: only on this machine itself, and only in a demo. */
export async function isDemoDoorOpen(host: Pick<Threads, 'read'>, address: string, hostname: string): Promise<boolean> {
	const bound = process.env['HOST'] === '127.0.0.1' || process.env['HOST'] === '::1'
	if (!bound || !LOOPBACK.has(address) || (hostname !== '127.0.0.1' && hostname !== 'localhost')) return false
	return (await host.read('workspace', undefined)).demo
}
