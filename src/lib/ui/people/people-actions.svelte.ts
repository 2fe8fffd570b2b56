import { doWithPeople, type PeopleAction } from './do.ts'

/** What a sheet of people does, and what was wrong with the last of it. */
export class PeopleActions {
	wrong = $state('')

	/** Whether it was done. */
	async act(asked: PeopleAction): Promise<boolean> {
		const answer = await doWithPeople(asked)
		this.wrong = answer.ok ? '' : answer.refusal.message
		return answer.ok
	}
}
