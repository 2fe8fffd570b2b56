/**
 * Pages of one browser tell each other who is signed in: a page whose session ran out goes on once the same person has signed in
 * again, wherever; with somebody else there it closes, and shows nothing that was typed.
 */

import { SIGNED_OUT } from './signed-out.ts'

const CHANNEL = 'tin-shed-session'

export class SessionWatch {
	/** Whether this page waits for somebody to sign in again. */
	isOut = $state(false)
	private readonly who: () => string
	private readonly close: () => void
	private channel: BroadcastChannel | undefined

	/** `who`: whose this page is, as a word that only the same person gets; blank for nobody's. */
	constructor(who: () => string, close: () => void) {
		this.who = who
		this.close = close
	}

	/** Until what it gives is called. */
	begin(): () => void {
		const channel = new BroadcastChannel(CHANNEL)
		this.channel = channel
		channel.onmessage = ({ data }) => this.hear(String(data))
		const onOut = () => (this.isOut = this.who() !== '')
		window.addEventListener(SIGNED_OUT, onOut)
		return () => {
			window.removeEventListener(SIGNED_OUT, onOut)
			channel.close()
			this.channel = undefined
		}
	}

	/** Tells the other pages whose this one is. */
	tell(): void {
		if (this.who() !== '') this.channel?.postMessage(this.who())
	}

	private hear(other: string): void {
		if (this.who() === '' || other === '') return
		if (other !== this.who()) return this.close()
		this.isOut = false
	}
}
