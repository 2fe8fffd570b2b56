/** Being told while the app is closed: asked for on one's own page, and shown by the browser when it is told. */
import Database from 'better-sqlite3'
import { expect, test, type Page } from '@playwright/test'
import { BASE, FILE } from './asking.ts'
import { signIn } from './people.ts'

const alive = (page: Page) => expect(page.locator('#svelte-announcer')).toBeAttached()

/** Chromium here has no push service behind it: what it would give stands in, and the page goes on as with a real one. */
function standIn(): void {
	const keys = { p256dh: 'B'.repeat(87), auth: 'A'.repeat(22) }
	const subscription = {
		endpoint: 'https://push.varrow.example/to/browser',
		toJSON: () => ({ endpoint: 'https://push.varrow.example/to/browser', keys }),
		unsubscribe: async () => {
			held = null
			return true
		}
	} as unknown as PushSubscription
	let held: PushSubscription | null = null
	PushManager.prototype.subscribe = async () => (held = subscription)
	PushManager.prototype.getSubscription = async () => held
}

function devices(): unknown[] {
	const db = new Database(FILE, { readonly: true })
	const found = db.prepare(`SELECT endpoint, p.c1 AS name FROM device JOIN t1 AS p ON p.n = person`).all()
	db.close()
	return found
}

test('somebody asks to be told in a browser, and ends it', async ({ browser }) => {
	const page = await signIn(browser, 'Imke Dahl')
	await page.context().grantPermissions(['notifications'], { origin: BASE })
	await page.addInitScript(standIn)
	await page.goto('/me')
	await alive(page)
	await page.getByRole('button', { name: 'Tell me here too' }).click()
	await expect(page.getByText('You are told here.')).toBeVisible()
	expect(devices()).toEqual([{ endpoint: 'https://push.varrow.example/to/browser', name: 'Imke Dahl' }])
	await page.getByRole('button', { name: 'Tell me here no more' }).click()
	await expect(page.getByRole('button', { name: 'Tell me here too' })).toBeVisible()
	expect(devices()).toEqual([])
	await page.context().close()
})

test('a closed browser shows what it is told, and no more than its subject', async ({ browser }) => {
	const page = await signIn(browser, 'Imke Dahl')
	await page.context().grantPermissions(['notifications'], { origin: BASE })
	await page.goto('/notices')
	await alive(page)
	const devtools = await page.context().newCDPSession(page)
	const registered = new Promise<string>((resolve) => {
		devtools.on('ServiceWorker.workerVersionUpdated', ({ versions }) => {
			const active = versions.find(({ status }) => status === 'activated')
			if (active) resolve(active.registrationId)
		})
	})
	await devtools.send('ServiceWorker.enable')
	await page.evaluate(() => navigator.serviceWorker.register('/service-worker.js', { type: 'module' }))
	const registrationId = await registered
	const data = JSON.stringify({ from: 'Varrow Sound Harbour Trust', subject: 'Shackle is low', open: '/notices#x' })
	await devtools.send('ServiceWorker.deliverPushMessage', { origin: BASE, registrationId, data })
	const shown = () =>
		page.evaluate(async () => {
			const registration = await navigator.serviceWorker.ready
			return (await registration.getNotifications()).map(({ title, body, data }) => ({ title, body, open: data as string })) // prettier-ignore
		})
	await expect
		.poll(shown)
		.toEqual([{ title: 'Shackle is low', body: 'Varrow Sound Harbour Trust', open: '/notices#x' }])
	await page.context().close()
})
