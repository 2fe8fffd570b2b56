import { invalidate } from '$app/navigation'
import type { AnswerTo, AskedOf, Without } from '$lib/core/requests/pair.ts'
import type { PersonRequests, TeamRequests } from '$lib/core/requests/people.ts'
import { send, type Sent } from '../send.ts'

type Pairs = PersonRequests | TeamRequests
export type PeopleAction = AskedOf<Pairs>
/** Something done with one person, whom whoever takes it names. */
export type PersonAction = Without<AskedOf<PersonRequests>, 'person'>

/** Does something with people, teams or roles, and reads the page again where it worked. */
export async function doWithPeople<const A extends PeopleAction>(asked: A): Promise<Sent<AnswerTo<Pairs, A>>> {
	const answer = await send('POST', '/people/do', asked)
	if (answer.ok) await invalidate('app:people')
	return answer
}
