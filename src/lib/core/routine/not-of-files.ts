import type { Slot } from '../sentence/types.ts'

/** The clause by which rows of a file that is brought in start nothing; without it each of them does, if it fits. */
export const NOT_OF_FILES: Slot = {
	key: 'start.but',
	type: 'not starting',
	title: 'Which rows start nothing',
	before: ', but not for rows of ',
	clause: 'but not for rows of files'
}
