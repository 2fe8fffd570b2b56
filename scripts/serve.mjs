/** Starts the built server on a free port, and stops it cleanly on Ctrl C. */
import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { resolve } from 'node:path'

/**
 * Starts the server on a workspace; comes back with its address when it answers. `origin`: where links lead, if it is
 * reached by another address than its own.
 */
export async function serve({ folder, host = '127.0.0.1', origin }) {
	const port = await findPort(Number(process.env.PORT ?? 4700), process.env.PORT !== undefined)
	const at = `http://127.0.0.1:${port}`
	const server = spawn(process.execPath, ['build/server/index.js'], {
		stdio: 'inherit',
		env: {
			...process.env,
			HOST: host,
			PORT: String(port),
			ORIGIN: origin ?? at,
			TIN_SHED_DATA: folder,
			TIN_SHED_THREADS: resolve('build/threads'),
			BODY_SIZE_LIMIT: '600M',
			// Kit would believe anybody's header; whose is believed, TIN_SHED_PROXIES says.
			ADDRESS_HEADER: '',
			// Longer than the minute for which proxies keep a connection: the end that asks must not find it closed as it asks.
			KEEP_ALIVE_TIMEOUT: '65',
			SHUTDOWN_TIMEOUT: '3'
		}
	})
	for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill('SIGTERM'))
	server.on('exit', (code) => process.exit(code ?? 0))
	await untilReady(at, server)
	return origin ?? at
}

/** The wanted port, or the next that is free; one that was asked for by name must be free itself. */
async function findPort(wanted, exact) {
	for (let each = wanted; each < wanted + 50; each++) {
		if (await isFree(each)) return each
		if (exact) {
			console.error(`Port ${wanted} is taken. Choose another: PORT=4800`)
			process.exit(1)
		}
	}
	console.error('No free port was found.')
	process.exit(1)
}

function isFree(each) {
	return new Promise((done) => {
		const probe = createServer()
		probe.once('error', () => done(false))
		probe.listen(each, '127.0.0.1', () => probe.close(() => done(true)))
	})
}

async function untilReady(at, server) {
	for (let i = 0; i < 200; i++) {
		const answer = await fetch(`${at}/healthz`).catch(() => undefined)
		if (answer?.ok) return
		await new Promise((done) => setTimeout(done, 100))
	}
	console.error('The server did not start.')
	server.kill('SIGTERM')
	process.exit(1)
}
