/** A workspace served by the built program, and headless Chromium in front of it. */
import { chromium, type Browser, type Page } from '@playwright/test'
import { spawn } from 'node:child_process'
import { createServer, type AddressInfo } from 'node:net'
import { resolve } from 'node:path'

export interface Served {
	readonly origin: string
	readonly browser: Browser
}

/** Serves a folder for as long as the work lasts. */
export async function served<T>(
	{ workspace, scripts }: { readonly workspace: string; readonly scripts: string },
	work: (served: Served) => Promise<T>
): Promise<T> {
	const port = await freePort()
	const origin = `http://127.0.0.1:${port}`
	const server = spawn(process.execPath, ['build/server/index.js'], {
		env: {
			...process.env,
			HOST: '127.0.0.1',
			PORT: String(port),
			ORIGIN: origin,
			TIN_SHED_DATA: workspace,
			TIN_SHED_THREADS: resolve(scripts)
		}
	})
	const browser = await chromium.launch({
		executablePath: '/usr/bin/chromium',
		args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking']
	})
	try {
		await untilReady(origin)
		return await work({ origin, browser })
	} finally {
		await browser.close()
		server.kill('SIGTERM')
	}
}

/** A page for one of the demo's people. */
export async function signedIn(
	{ origin, browser }: Served,
	name: string,
	viewport: { width: number; height: number }
): Promise<Page> {
	const page = await browser.newPage({ viewport })
	await page.goto(`${origin}/sign-in`)
	await page.getByRole('button', { name, exact: true }).click()
	await page.waitForURL(`${origin}/`)
	return page
}

function freePort(): Promise<number> {
	return new Promise((done) => {
		const probe = createServer()
		probe.listen(0, '127.0.0.1', () => {
			const { port } = probe.address() as AddressInfo
			probe.close(() => done(port))
		})
	})
}

async function untilReady(origin: string): Promise<void> {
	for (let i = 0; i < 200; i++) {
		if ((await fetch(`${origin}/healthz`).catch(() => undefined))?.ok) return
		await new Promise((done) => setTimeout(done, 100))
	}
	throw new Error('Expected the built server to start (npm run build)')
}
