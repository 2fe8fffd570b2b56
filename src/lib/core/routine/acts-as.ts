import type { Slot } from '../sentence/types.ts'

/** The clause by which a routine acts as a role of its own, whoever starts it. */
export const ACTS_AS: Slot = {
	key: 'acts',
	type: 'role',
	title: 'the role that it acts as',
	before: ', acting as ',
	clause: 'acting as a role'
}
