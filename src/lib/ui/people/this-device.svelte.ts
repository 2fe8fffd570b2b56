/** Whether this browser is told while it is closed, and how that is asked for and ended. */
import { send } from '../send.ts'

export type DeviceState = 'unknown' | 'cannot' | 'denied' | 'off' | 'on'

/** `key`: the public key of the workspace, as base64url. */
export class ThisDevice {
	state = $state<DeviceState>('unknown')
	/** Why the last change came to nothing; blank where it did not. */
	says = $state('')
	readonly #key: string

	constructor(key: string) {
		this.#key = key
	}

	async look(): Promise<void> {
		if (!('serviceWorker' in navigator) || !('PushManager' in window)) this.state = 'cannot'
		else if (Notification.permission === 'denied') this.state = 'denied'
		else this.state = (await this.#subscription()) ? 'on' : 'off'
	}

	async begin(): Promise<void> {
		this.says = ''
		try {
			if ((await Notification.requestPermission()) !== 'granted') return await this.look()
			await navigator.serviceWorker.register('/service-worker.js', { type: 'module' })
			const { pushManager } = await navigator.serviceWorker.ready
			const made = await pushManager.subscribe({ userVisibleOnly: true, applicationServerKey: this.#key })
			const { endpoint, keys } = made.toJSON()
			const device = { endpoint: endpoint ?? '', p256dh: keys?.['p256dh'] ?? '', auth: keys?.['auth'] ?? '' }
			const sent = await send('POST', '/notices/device', device)
			if (!sent.ok) {
				await made.unsubscribe()
				this.says = sent.refusal.message
			}
		} catch (thrown) {
			this.says = `This browser cannot be told: ${thrown instanceof Error ? thrown.message : String(thrown)}`
		}
		await this.look()
	}

	async end(): Promise<void> {
		const subscription = await this.#subscription()
		if (subscription) {
			await subscription.unsubscribe()
			await send('DELETE', '/notices/device', { endpoint: subscription.endpoint })
		}
		await this.look()
	}

	async #subscription(): Promise<PushSubscription | null> {
		const registration = await navigator.serviceWorker.getRegistration()
		return registration ? registration.pushManager.getSubscription() : null
	}
}
