/**
 * `npm run demo`: sets up what is missing, makes the demo workspace where there is none (`-- --fresh`: anew), starts the
 * built server on a free loopback port and says who can sign in. Ctrl C stops it cleanly.
 */
import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { build, installPackages, run } from './ready.mjs'

installPackages()
build()

const folder = resolve(process.env.TIN_SHED_DATA ?? 'var')
if (process.argv.includes('--fresh') || !existsSync(join(folder, 'workspace.db'))) {
	console.log('Making the demo workspace…')
	if (run(process.execPath, ['build/threads/make-demo.js', folder]) !== 0) process.exit(1)
}

const port = await findPort(Number(process.env.PORT ?? 4700), process.env.PORT !== undefined)
const origin = `http://127.0.0.1:${port}`
const server = spawn(process.execPath, ['build/server/index.js'], {
	stdio: 'inherit',
	env: {
		...process.env,
		HOST: '127.0.0.1',
		PORT: String(port),
		ORIGIN: origin,
		TIN_SHED_DATA: folder,
		TIN_SHED_THREADS: resolve('build/threads'),
		BODY_SIZE_LIMIT: '600M',
		SHUTDOWN_TIMEOUT: '3'
	}
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill('SIGTERM'))
server.on('exit', (code) => process.exit(code ?? 0))

await untilReady(origin)
console.log(`
Tin Shed, the demo of Varrow Sound Harbour Trust, is at ${origin}

Sign in as anybody: the sign-in page lists them all. By hand the password is "lantern on the quay", for instance
  saskia.holm@varrow.example        builder: the Bench
  imke.dahl@varrow.example          diver at Ness Hythe
  osric.vane@varrow.example         harbour master at Varrow Quay
  petra.nankivell@varrow.example    finance: requests wait on her
  ailith.brand@varrow.example       steward

The mooring register to bring in lies at ${join(folder, 'shared drive', 'Mooring register.xlsx')}
Ctrl C stops it.`)

/** The wanted port, or the next that is free; one that was asked for by name must be free itself. */
async function findPort(wanted, exact) {
	for (let each = wanted; each < wanted + 50; each++) {
		if (await isFree(each)) return each
		if (exact) {
			console.error(`Port ${wanted} is taken. Choose another: PORT=4800 npm run demo`)
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

async function untilReady(at) {
	for (let i = 0; i < 200; i++) {
		const answer = await fetch(`${at}/healthz`).catch(() => undefined)
		if (answer?.ok) return
		await new Promise((done) => setTimeout(done, 100))
	}
	console.error('The server did not start.')
	server.kill('SIGTERM')
	process.exit(1)
}
