/** Starts by the clock: again and again on days that are said in words, at a time, in the zone of the workspace. */
import { z } from 'zod'
import { mistake } from '../document/findings.ts'
import { words } from '../document/parts.ts'
import { parseRecurrence } from '../schedule/recurrence-words.ts'
import { minutesOf } from '../schedule/time-of-day.ts'
import { MISSED } from '../sentence/slots/all.ts'
import { ACTS_AS } from './acts-as.ts'
import { PLAIN_START, type StartEntry } from './step-entry.ts'

export const clockStartSchema = z.object({
	kind: z.literal('clock'),
	/** In words, or as a rule of RFC 5545. */
	days: words,
	/** `17:00` */
	at: words,
	missed: z.enum(MISSED)
})
export type ClockStart = z.infer<typeof clockStartSchema>

export const clockStart: StartEntry<ClockStart> = {
	sentence: {
		kind: {
			kind: 'clock',
			about: 'Starts by the clock: every Monday at noon, or on the last working day of each month',
			parts: [
				'By the clock, ',
				{ key: 'start.days', type: 'recurrence', title: 'On which days' },
				' at ',
				{ key: 'start.at', type: 'time of day', title: 'When' },
				'; missed ones ',
				{ key: 'start.missed', type: 'missed', title: 'What becomes of times at which the program did not run' },
				ACTS_AS
			]
		},
		blank: { start: { kind: 'clock', days: 'every working day', at: '08:00', missed: 'once for all' } }
	},
	...PLAIN_START,
	offer: 'by the clock',
	isPressed: false,
	begin: () => ({ kind: 'clock', days: 'every working day', at: '08:00', missed: 'once for all' }),
	check({ days, at }) {
		const read = parseRecurrence(days)
		return [
			...('message' in read ? mistake(read.message) : []),
			...(minutesOf(at) === undefined ? mistake(`"${at}" is no time of day. Write it like 17:00.`) : [])
		]
	}
}
