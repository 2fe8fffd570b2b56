import { numbersInAddress, readQuery, wholeInAddress } from '$lib/server/web/address.ts'
import { readSessionToken } from '$lib/server/sign-in/session-cookie.ts'
import { getActor } from '$lib/server/web/signed-in.ts'
import { hashToken } from '$lib/server/base/token.ts'

const BEAT_MS = 25_000

/**
 * Says that something changed, never what: the page then reads again what it may. `since` is when the page was read: what
 * changed between that and this connection would be missed otherwise. It lasts no longer than the session that opened it.
 */
export async function GET({ locals, url, request, cookies }) {
	const { host } = locals
	const actor = getActor(locals)
	const tokenHash = hashToken(readSessionToken(cookies, url) ?? '')
	const { tables: asked, since } = readQuery(url, { tables: numbersInAddress, since: wholeInAddress.optional() })
	// That something turns in a table is told only to whoever may see some of it.
	const readSeen = async () => new Set(await host.read('seenTables', { tables: asked, actor, now: host.now() }))
	let tables = await readSeen()
	const encoder = new TextEncoder()
	let leave = () => {}
	const stream = new ReadableStream({
		start(controller) {
			let isOver = false
			const send = (text: string) => {
				if (!isOver) controller.enqueue(encoder.encode(text))
			}
			leave = () => {
				isOver = true
				clearInterval(beat)
				stop()
			}
			const end = () => {
				if (isOver) return
				sayChanged()
				leave()
				controller.close()
			}
			const sayChanged = () => send('event: changed\ndata: 1\n\n')
			/** After it the page reads again, and is told to sign in where its session has ended. */
			const lookAgain = async () => {
				const session = await host.read('session', { tokenHash, now: host.now() })
				if (session?.person === actor.person) tables = await readSeen()
				else end()
			}
			const stop = host.onChange((notice) => {
				if (notice.access || notice.tables.some((table) => tables.has(table))) sayChanged()
				if (notice.access || notice.sessions) void lookAgain().catch(() => end())
			})
			const beat = setInterval(() => {
				send(': still here\n\n')
				void lookAgain().catch(() => end())
			}, BEAT_MS)
			send('retry: 2000\n\n')
			if (since !== undefined && host.hasChangedSince(since, tables)) sayChanged()
			request.signal.addEventListener('abort', leave)
		},
		cancel: () => leave()
	})
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	})
}
