/** What the stand-in for mail has taken in. A repeat of a message is known by its Message-ID and dropped. */
import type { Actor } from '../rights/rights-of-actor.ts'
import { describePerson } from '../rights/accounts.ts'
import type { Store } from '../store/store.ts'

export interface TrayMessage {
	readonly messageId: string
	readonly sender: string
	readonly recipient: string
	readonly subject: string
	readonly body: string
	/** Blank where there is none. */
	readonly html: string
	readonly takenAt: number
	readonly repeats: number
}

const TAKE = `
	INSERT INTO post_tray (message_id, sender, recipient, subject, body, html, taken_at)
	VALUES (@messageId, @sender, @recipient, @subject, @body, @html, @now)
	ON CONFLICT (message_id) DO UPDATE SET repeats = repeats + 1`
const LIST = `
	SELECT message_id AS messageId, sender, recipient, subject, body, html, taken_at AS takenAt, repeats
	FROM post_tray
	WHERE @all = 1 OR text_key(recipient) = text_key(@email)
	ORDER BY taken_at DESC, rowid DESC LIMIT 200`
const IS_DEMO = `SELECT value FROM meta WHERE key = 'demo'`

/** Lays a message into the tray, where no post is set up; the same message again counts as a repeat. */
export function takeMessage(store: Store, message: Omit<TrayMessage, 'takenAt' | 'repeats'> & { now: number }): void {
	store.prepare(TAKE).run({ ...message })
	store.touched.add('jobs')
}

/** One's own messages; all of them only in a demo, where nobody is written to for real, and only for those who build it. */
export function listTray(store: Store, { actor }: { actor: Actor }): { messages: TrayMessage[]; all: boolean } {
	const who = describePerson(store, actor.person)
	const all = isDemo(store) && (who?.isBuilder === true || who?.isSteward === true)
	const messages = store.prepare<TrayMessage>(LIST).all({ all: all ? 1 : 0, email: who?.email ?? '' })
	return { messages, all }
}

/** Whether the workspace is the demo, in which anybody may be looked at as. */
export function isDemo(store: Store): boolean {
	return store.prepare(IS_DEMO).pluck().get() === 'yes'
}
