import { getActor } from '$lib/server/signed-in.ts'

/**
 * Says that something turned, never what: the page then reads again what it may. `since` is when the page was read: what
 * turned between that and this connection would be missed otherwise.
 */
export async function GET({ locals, url, request }) {
	const asked = (url.searchParams.get('tables') ?? '').split(',').map(Number)
	// That something turns in a table is told only to whoever may see some of it.
	const tables = new Set(
		await locals.host.read('seenTables', { tables: asked, actor: getActor(locals), now: locals.now })
	)
	const since = Number(url.searchParams.get('since') ?? Number.NaN)
	const encoder = new TextEncoder()
	let end = () => {}
	const stream = new ReadableStream({
		start(controller) {
			const send = (text: string) => controller.enqueue(encoder.encode(text))
			const stop = locals.host.onTurned((turned) => {
				if (turned.access || turned.tables.some((table) => tables.has(table))) send('event: turned\ndata: 1\n\n')
			})
			const beat = setInterval(() => send(': still here\n\n'), 25_000)
			end = () => {
				clearInterval(beat)
				stop()
			}
			send('retry: 2000\n\n')
			if (locals.host.hasTurnedSince(since, tables)) send('event: turned\ndata: 1\n\n')
			request.signal.addEventListener('abort', end)
		},
		cancel: () => end()
	})
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	})
}
