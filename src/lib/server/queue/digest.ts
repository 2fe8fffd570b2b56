/** The mail of the day: for who is told once a day, what came since and was not read on their page. */
import type { Store } from '../store/store.ts'
import { addMessage } from './messages.ts'
import { readTelling } from './telling.ts'
import { payloadOf, type Job } from './queue.ts'

const HELD = `SELECT subject, read_at AS readAt FROM message WHERE person = ? AND is_held = 1 ORDER BY id`
const LET_GO = `UPDATE message SET is_held = 0 WHERE person = ? AND is_held = 1`
/** Beyond so many the rest is counted. */
const MOST_NAMED = 50

export function runDigestJob(store: Store, job: Job<'digest'>, now: number): void {
	const { person } = payloadOf(job)
	const held = store.prepare<{ subject: string; readAt: number | null }>(HELD).all(person)
	store.prepare(LET_GO).run(person)
	const unread = held.filter(({ readAt }) => readAt === null)
	if (unread.length === 0 || readTelling(store, { person }).mail === 'never') return
	const lines = unread.slice(0, MOST_NAMED).map(({ subject }) => `- ${subject}`)
	const more = unread.length > MOST_NAMED ? [`and ${unread.length - MOST_NAMED} more`] : []
	const subject = unread.length === 1 ? `1 notice: ${unread[0]?.subject ?? ''}` : `${unread.length} notices`
	const cause = `digest ${job.id}`
	addMessage(store, {
		cause,
		kind: 'digest',
		person,
		subject,
		body: [...lines, ...more].join('\n'),
		link: '/notices',
		now
	})
}
