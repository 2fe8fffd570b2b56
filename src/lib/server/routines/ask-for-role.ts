/** The step that asks for a role. Those who may give it lie above this folder, and are told by whoever puts the writer together. */
import { AppError } from '$lib/core/app-error.ts'
import type { StepOf } from '$lib/core/routine/routine.ts'
import type { Store } from '../store/store.ts'
import { readPersonRow, rolesOf } from '../rights/roles-held.ts'
import { recipientOf, type StepNow, type StepResult } from './step-now.ts'

export interface RoleAsked {
	readonly app: number
	readonly person: number
	readonly role: number
	readonly words: string
	/** Who set it off, and who released it: neither decides. Null for a clock's, or another program's. */
	readonly begunBy: number | null
	readonly releasedBy: number
	readonly now: number
}

let ask: (store: Store, asked: RoleAsked) => void = () => {
	throw new Error('Cannot ask for a role: nobody was registered to be asked')
}

/** Says who is asked. Called where the writer is put together. */
export function askForRolesBy(asking: typeof ask): void {
	ask = asking
}

const RELEASED_BY = `SELECT made_by FROM release WHERE app = ? AND number = ?`

export function askForRole(step: StepOf<'role'>, now: StepNow): StepResult {
	const { store, app, release, by } = now
	const outcome = { kind: 'done', many: 1 } as const
	const person = recipientOf(step, now)
	if (person === undefined) return { outcome, cameTo: 'nobody was named' }
	if (!store.workspace().roles.some(({ id }) => id === step.role))
		throw new AppError('invalid', 'The role that it asks for is gone.')
	if (rolesOf(store, person, readPersonRow(store, person)).has(step.role))
		return { outcome, cameTo: 'held already', person }
	const releasedBy = store.prepare<number>(RELEASED_BY).pluck().get(app, release) ?? 0
	ask(store, { app, person, role: step.role, words: step.words, begunBy: by, releasedBy, now: now.now })
	return { outcome, cameTo: 'asked for', person }
}
