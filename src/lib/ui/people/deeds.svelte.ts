import { doWithPeople } from './do.ts'

/** What a sheet of people does, and what was wrong with the last of it. */
export class Deeds {
	wrong = $state('')

	/** Whether it was done. */
	async act(asked: { kind: string } & Record<string, unknown>): Promise<boolean> {
		const answer = await doWithPeople(asked)
		this.wrong = answer.ok ? '' : answer.refusal.message
		return answer.ok
	}
}
