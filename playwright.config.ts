import { defineConfig } from '@playwright/test'

const ARGS = [
	'--no-sandbox',
	'--disable-gpu',
	'--disable-quic',
	'--no-first-run',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync'
]

export default defineConfig({
	testDir: 'tests/browser',
	timeout: 120_000,
	expect: { timeout: 15_000 },
	fullyParallel: false,
	workers: 1,
	reporter: [['list'], ['json', { outputFile: 'test-results/browser.json' }]],
	use: {
		baseURL: 'http://127.0.0.1:4799',
		viewport: { width: 1280, height: 800 },
		launchOptions: { executablePath: '/usr/bin/chromium', args: ARGS },
		trace: 'retain-on-failure',
		// Sooner than the test itself ends: then the failure says which press or page it waited for.
		actionTimeout: 40_000,
		navigationTimeout: 60_000
	},
	webServer: {
		command: 'node scripts/demo.mjs --fresh',
		url: 'http://127.0.0.1:4799/healthz',
		timeout: 240_000,
		env: { PORT: '4799', TIN_SHED_DATA: 'test-results/workspace' },
		gracefulShutdown: { signal: 'SIGTERM', timeout: 8000 }
	}
})
