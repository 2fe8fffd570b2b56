import { invalidate } from '$app/navigation'
import { send, type Sent } from '../send.ts'

/** Does something with people, teams or roles, and reads the page again where it worked. */
export async function doWithPeople<T = unknown>(asked: { kind: string } & Record<string, unknown>): Promise<Sent<T>> {
	const answer = await send<T>('/people/do', asked)
	if (answer.ok) await invalidate('app:people')
	return answer
}
