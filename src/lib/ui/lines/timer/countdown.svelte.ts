/** Seconds since a screen was last touched, and what happens when they are up. The tablet's own sleep is held off meanwhile. */

/** So long before it ends a word is said. */
const NEAR = 10
const TICK_MS = 1_000

export class Countdown {
	private readonly seconds: () => number
	private readonly onend: () => void
	private since = $state(0)
	private hasEnded = false
	private lock: WakeLockSentinel | undefined

	constructor(seconds: () => number, onend: () => void) {
		this.seconds = seconds
		this.onend = onend
	}

	get left(): number {
		return Math.max(0, this.seconds() - this.since)
	}

	/** For the last seconds, or the last third of a short one. */
	get isNear(): boolean {
		return this.left <= Math.min(NEAR, Math.ceil(this.seconds() / 3))
	}

	touch(): void {
		this.since = 0
	}

	/** Until what it gives is called. */
	begin(): () => void {
		const timer = setInterval(() => this.tick(), TICK_MS)
		void this.stayAwake()
		return () => {
			clearInterval(timer)
			void this.lock?.release().catch(() => undefined)
		}
	}

	private tick(): void {
		this.since++
		if (this.left > 0 || this.hasEnded) return
		this.hasEnded = true
		this.onend()
	}

	/** Where the browser can; one that cannot goes dark as it is set to. */
	private async stayAwake(): Promise<void> {
		this.lock = await navigator.wakeLock?.request('screen').catch(() => undefined)
	}
}
