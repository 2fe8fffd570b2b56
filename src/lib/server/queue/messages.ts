/**
 * Messages that are to leave. Each is written in the transaction of what causes it and has a Message-ID made from its
 * cause, so that working the cause off twice writes it once, and sending it twice is seen as a repeat.
 */
import { ownJson } from '$lib/core/text/own-json.ts'
import type { ReportTable } from '$lib/core/requests/report.ts'
import { addJob } from './queue.ts'
import type { Store } from '../store/store.ts'
import { devicesOf } from './devices.ts'
import { mailAt, quietUntil } from './telling.ts'

export interface NewMessage {
	/**
	 * What an account needs is mail alone, and leaves at once whatever somebody chose; so does what gathers the notices of a day. Left
	 * out: a notice.
	 */
	readonly kind?: 'account' | 'digest'
	/** What caused it, as words that are the same each time: `routine 12 step a1`. */
	readonly cause: string
	/** 0 where it goes to an address that belongs to nobody here yet. */
	readonly person: number
	readonly to?: { readonly name: string; readonly email: string }
	readonly subject: string
	readonly body: string
	/** A path in this workspace. */
	readonly link: string | undefined
	/** The rows that it shows, and the file that comes with it. */
	readonly report?: ReportTable
	readonly file?: MessageFile | undefined
	readonly now: number
}

const ADD = `
	INSERT INTO message (message_id, kind, person, to_name, to_email, subject, body, link, report, made_at, is_held)
	VALUES (@messageId, @kind, @person, @toName, @toEmail, @subject, @body, @link, @report, @now, @isHeld)
	ON CONFLICT (message_id) DO NOTHING`
const READ = `
	SELECT message_id AS messageId, person, to_name AS toName, to_email AS toEmail, subject, body, link, report
	FROM message WHERE id = ?`
const ADD_FILE = `INSERT INTO message_file (message, name, media_type, bytes) VALUES (@message, @name, @mediaType, @bytes)`
const READ_FILE = `SELECT name, media_type AS mediaType, bytes FROM message_file WHERE message = ?`
const MARK_SENT = `UPDATE message SET sent_at = @now WHERE id = @id AND sent_at IS NULL`
const WORKSPACE_ID = `SELECT value FROM meta WHERE key = 'workspace id'`

/** A file that travels as text. */
export interface MessageFile {
	readonly name: string
	readonly mediaType: string
	readonly base64: string
}

export interface Message {
	readonly messageId: string
	readonly person: number
	readonly toName: string | null
	readonly toEmail: string | null
	readonly subject: string
	readonly body: string
	readonly link: string | null
	readonly report: ReportTable | null
	readonly file: MessageFile | null
}

const HAS_DIGEST = `SELECT 1 FROM job WHERE task = 'digest' AND done_at IS NULL AND attempts < max_attempts AND payload ->> 'person' = ?`

/** Puts a message to somebody on their page and in the queue, once for each cause; it leaves after the commit, as they chose. */
export function addMessage(store: Store, message: NewMessage): void {
	const { cause, person, body, link = null, now } = message
	const kind = message.kind ?? (message.to ? 'account' : 'notice')
	const isMany = kind === 'notice' && hadMany(store, { person, now })
	const mail = kind === 'notice' ? mailAt(store, { person, now, isMany }) : ({ is: 'at', at: now } as const)
	const domain = store.prepare<string>(WORKSPACE_ID).pluck().get() ?? 'workspace'
	const messageId = `<${cause.replace(/[^\w]+/g, '.')}@${domain}.tin-shed.example>`
	// A line break in a header would let a row's text add headers of its own.
	const subject = message.subject.replace(/\s+/g, ' ').trim().slice(0, 200)
	const to = { toName: message.to?.name.replace(/\s+/g, ' ') ?? null, toEmail: message.to?.email ?? null }
	const isHeld = mail.is === 'day' ? 1 : 0
	const report = message.report ? JSON.stringify(message.report) : null
	const added = store.prepare(ADD).run({ messageId, kind, person, ...to, subject, body, link, report, now, isHeld })
	if (added.changes === 0) return
	if (message.file) addFile(store, Number(added.lastInsertRowid), message.file)
	if (kind === 'notice') tellAtOnce(store, { message: Number(added.lastInsertRowid), person, now })
	if (mail.is === 'at') addJob(store, 'post', { message: Number(added.lastInsertRowid) }, mail.at)
	if (mail.is === 'day' && !store.prepare(HAS_DIGEST).get(person)) addJob(store, 'digest', { person }, mail.at)
}

/** Open pages show it, and closed browsers are told; these not in quiet hours. */
function tellAtOnce(store: Store, { message, person, now }: { message: number; person: number; now: number }): void {
	store.touched.add(`told ${person}`)
	const at = quietUntil(store, { person, now })
	for (const device of devicesOf(store, person)) addJob(store, 'push', { message, device }, at)
}

/** So many mails a day to one person; what comes besides stands on their page, and in the one mail of the day. */
const MOST_A_DAY = 100
const NTH_LAST = `SELECT made_at FROM message WHERE person = ? AND kind = 'notice' ORDER BY id DESC LIMIT 1 OFFSET ${MOST_A_DAY - 1}`

function hadMany(store: Store, { person, now }: { person: number; now: number }): boolean {
	const at = store.prepare<number>(NTH_LAST).pluck().get(person)
	return at !== undefined && at > now - 86_400_000
}

export function readMessage(store: Store, id: number): Message | undefined {
	const found = store.prepare<Omit<Message, 'report' | 'file'> & { report: string | null }>(READ).get(id)
	return found && { ...found, report: reportIn(found.report), file: readMessageFile(store, id) ?? null }
}

/** Rows as they were written into a message. */
export function reportIn(text: string | null): ReportTable | null {
	return text === null ? null : ownJson<ReportTable>(text)
}

export function readMessageFile(store: Store, id: number): MessageFile | undefined {
	const found = store.prepare<{ name: string; mediaType: string; bytes: Buffer }>(READ_FILE).get(id)
	return found && { name: found.name, mediaType: found.mediaType, base64: found.bytes.toString('base64') }
}

const KEPT_MS = 90 * 86_400_000
const DROP_OLD = `
	DELETE FROM message_file WHERE message IN
		(SELECT f.message FROM message_file AS f JOIN message AS m ON m.id = f.message WHERE m.made_at < ? LIMIT 50)`

/** Files that came with messages are kept for 90 days; what the messages say stays. */
export function dropOldFiles(store: Store, now: number): void {
	store.prepare(DROP_OLD).run(now - KEPT_MS)
}

function addFile(store: Store, message: number, { name, mediaType, base64 }: MessageFile): void {
	store.prepare(ADD_FILE).run({ message, name, mediaType, bytes: Buffer.from(base64, 'base64') })
}

/** `now`: when the post took it. */
export function markSent(store: Store, id: number, now: number): void {
	store.prepare(MARK_SENT).run({ id, now })
}
