/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/** Shows what somebody is told while no page is open. It answers no page and keeps nothing. */
import type { PushWords } from '$lib/core/requests/notices.ts'

// The scope of a service worker is its own kind of window, which the compiler knows only by this name.
const worker = globalThis as unknown as ServiceWorkerGlobalScope

worker.addEventListener('install', () => void worker.skipWaiting())
worker.addEventListener('activate', (event) => event.waitUntil(worker.clients.claim()))

worker.addEventListener('push', (event) => {
	// What the server has sealed for this browser.
	const { from, subject, open } = event.data?.json() as PushWords
	event.waitUntil(
		worker.registration.showNotification(subject, { body: from, icon: '/shed.svg', data: open, tag: open })
	)
})

worker.addEventListener('notificationclick', (event) => {
	event.notification.close()
	// A path of ours, as it came with the notice.
	event.waitUntil(show(event.notification.data as string))
})

/** In a window that is open already, else in a new one. */
async function show(path: string): Promise<void> {
	const [window] = await worker.clients.matchAll({ type: 'window' })
	if (!window) return void (await worker.clients.openWindow(path))
	await window.focus()
	await window.navigate(path)
}
