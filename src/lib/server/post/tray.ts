/** What the stand-in for mail has taken in. A repeat of a message is known by its Message-ID and dropped. */
import type { Actor } from '../rights/rights-of-actor.ts'
import { describePerson } from '../rights/accounts.ts'
import type { MessageFile } from '../queue/messages.ts'
import type { Store } from '../store/store.ts'

export interface TrayMessage {
	readonly messageId: string
	readonly sender: string
	readonly recipient: string
	readonly subject: string
	readonly body: string
	/** Blank where there is none. */
	readonly html: string
	/** The name of the file that came with it; blank where none did. */
	readonly fileName: string
	readonly takenAt: number
	readonly repeats: number
}

const TAKE = `
	INSERT INTO post_tray (message_id, sender, recipient, subject, body, html, taken_at, file_name, file_type, file_bytes)
	VALUES (@messageId, @sender, @recipient, @subject, @body, @html, @now, @fileName, @fileType, @fileBytes)
	ON CONFLICT (message_id) DO UPDATE SET repeats = repeats + 1`
const LIST = `
	SELECT message_id AS messageId, sender, recipient, subject, body, html, taken_at AS takenAt, repeats, file_name AS fileName
	FROM post_tray
	WHERE @all = 1 OR text_key(recipient) = text_key(@email)
	ORDER BY taken_at DESC, rowid DESC LIMIT 200`
const FILE = `
	SELECT file_name AS name, file_type AS mediaType, file_bytes AS bytes FROM post_tray
	WHERE message_id = @id AND file_bytes IS NOT NULL AND (@all = 1 OR text_key(recipient) = text_key(@email))`
const IS_DEMO = `SELECT value FROM meta WHERE key = 'demo'`

/** Lays a message into the tray, where no post is set up; the same message again counts as a repeat. */
export function takeMessage(
	store: Store,
	{
		file,
		...message
	}: Omit<TrayMessage, 'takenAt' | 'repeats' | 'fileName'> & { file: MessageFile | null; now: number }
): void {
	const fileBytes = file && Buffer.from(file.base64, 'base64')
	store.prepare(TAKE).run({ ...message, fileName: file?.name ?? '', fileType: file?.mediaType ?? '', fileBytes })
	store.touched.add('jobs')
}

/** One's own messages; all of them only in a demo, where nobody is written to for real, and only for those who build it. */
export function listTray(store: Store, { actor }: { actor: Actor }): { messages: TrayMessage[]; all: boolean } {
	const { all, email } = sightOf(store, actor)
	return { messages: store.prepare<TrayMessage>(LIST).all({ all: all ? 1 : 0, email }), all }
}

/** The file that came with a message that this person may see in the tray; null where there is none. */
export function trayFile(store: Store, { id, actor }: { id: string; actor: Actor }): MessageFile | null {
	const { all, email } = sightOf(store, actor)
	const found = store.prepare<StoredFile>(FILE).get({ id, all: all ? 1 : 0, email })
	return found ? { name: found.name, mediaType: found.mediaType, base64: found.bytes.toString('base64') } : null
}

interface StoredFile {
	readonly name: string
	readonly mediaType: string
	readonly bytes: Buffer
}

function sightOf(store: Store, { person }: Actor): { all: boolean; email: string } {
	const who = describePerson(store, person)
	const all = isDemo(store) && (who?.isBuilder === true || who?.isSteward === true)
	return { all, email: who?.email ?? '' }
}

/** Whether the workspace is the demo, in which anybody may be looked at as. */
export function isDemo(store: Store): boolean {
	return store.prepare(IS_DEMO).pluck().get() === 'yes'
}
