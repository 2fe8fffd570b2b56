import type { FollowedLook, OfferedCode } from '$lib/core/requests/looks.ts'
import { send, type Sent } from '../send.ts'

/** The devices that follow a builder's Lookout, and codes that nobody has used yet. */
export class Followers {
	list = $state.raw<readonly FollowedLook[]>([])

	async read(): Promise<void> {
		const answer = await send('POST', '/bench/looks', { kind: 'list' })
		if (answer.ok) this.list = answer.value
	}

	async offer(token: string): Promise<Sent<OfferedCode>> {
		const answer = await send('POST', '/bench/looks', { kind: 'offer', token })
		await this.read()
		return answer
	}

	async end(id: string): Promise<void> {
		await send('POST', '/bench/looks', { kind: 'end', id })
		await this.read()
	}
}
