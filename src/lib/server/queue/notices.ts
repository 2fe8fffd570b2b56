/** What somebody was told, read and unread. They are shown as they were written: to them, with what they might see then. */
import { AppError } from '$lib/core/app-error.ts'
import type { Notice, Notices } from '$lib/core/requests/notices.ts'
import { readMessageFile, reportIn, type MessageFile } from './messages.ts'
import { openId, sealId } from '../store/sealed-ids.ts'
import type { Store } from '../store/store.ts'

const MOST = 100

const LIST = `
	SELECT id, subject, body, link, made_at AS at, read_at AS readAt, report,
		(SELECT name FROM message_file AS f WHERE f.message = message.id) AS fileName
	FROM message
	WHERE person = @person AND kind = 'notice' AND is_cleared = 0 ORDER BY id DESC LIMIT @most`
const UNREAD = `SELECT count(*) FROM message WHERE person = ? AND kind = 'notice' AND read_at IS NULL`
const UNREAD_ONE = `SELECT person, subject FROM message WHERE id = ? AND kind = 'notice' AND read_at IS NULL`
const FIND = `SELECT link FROM message WHERE id = @id AND person = @person AND kind = 'notice'`
const READ_ONE = `UPDATE message SET read_at = @now WHERE id = @id AND person = @person AND read_at IS NULL`
const READ_ALL = `UPDATE message SET read_at = @now WHERE person = @person AND kind = 'notice' AND read_at IS NULL AND id <= @upto`
const CLEAR = `
	UPDATE message SET is_cleared = 1
	WHERE person = @person AND kind = 'notice' AND is_cleared = 0 AND read_at IS NOT NULL AND id <= @upto`
const READ_LEADING_TO = `UPDATE message SET read_at = @now WHERE person = @person AND link = @link AND kind = 'notice' AND read_at IS NULL`

interface StoredNotice {
	readonly id: number
	readonly subject: string
	readonly body: string
	readonly link: string | null
	readonly at: number
	readonly readAt: number | null
	readonly report: string | null
	readonly fileName: string | null
}

/** The newest first. */
export function listNotices(store: Store, { person }: { person: number }): Notices {
	const found = store.prepare<StoredNotice>(LIST).all({ person, most: MOST + 1 })
	const notices = found.slice(0, MOST).map(({ id, subject, body, link, at, readAt, report, fileName }): Notice => ({
		...{ id: sealId(store, 'notice', id), subject, body, at },
		...{ hasLink: link !== null, isRead: readAt !== null, report: reportIn(report), fileName }
	}))
	return { notices, unread: countUnread(store, person), isCut: found.length > MOST }
}

/** A message as long as it was not read. */
export function findUnread(
	store: Store,
	id: number
): { readonly person: number; readonly subject: string } | undefined {
	return store.prepare<{ person: number; subject: string }>(UNREAD_ONE).get(id)
}

export function countUnread(store: Store, person: number): number {
	return store.pluck<number>(UNREAD, person) ?? 0
}

/** Marks one as read and gives where it leads; null where it leads nowhere. */
export function openNotice(
	store: Store,
	{ id: sealed, person, now }: { id: string; person: number; now: number }
): string | null {
	const id = openId(store, 'notice', sealed)
	const found = id === undefined ? undefined : store.prepare<{ link: string | null }>(FIND).get({ id, person })
	if (!found) throw new AppError('not_found', 'This notice is not there, or not for you to read.')
	store.prepare(READ_ONE).run({ id, person, now })
	return found.link
}

/** The file that came with a notice of somebody; null where there is none. */
export function noticeFile(store: Store, { id: sealed, person }: { id: string; person: number }): MessageFile | null {
	const id = openId(store, 'notice', sealed)
	const isOwn = id !== undefined && store.prepare(FIND).get({ id, person }) !== undefined
	return (isOwn ? readMessageFile(store, id) : undefined) ?? null
}

/** All up to one: what came since was not on the page that was read. */
export function readAllNotices(
	store: Store,
	{ upto: sealed, person, now }: { upto: string; person: number; now: number }
): void {
	const upto = openId(store, 'notice', sealed)
	if (upto !== undefined) store.prepare(READ_ALL).run({ person, now, upto })
}

/** Puts away what was read, up to one that stood on the page. */
export function clearNotices(store: Store, { upto: sealed, person }: { upto: string; person: number }): void {
	const upto = openId(store, 'notice', sealed)
	if (upto !== undefined) store.prepare(CLEAR).run({ person, upto })
}

/** What a notice leads to is done: it is not left to be read. */
export function readNoticesTo(
	store: Store,
	{ link, person, now }: { link: string; person: number; now: number }
): void {
	store.prepare(READ_LEADING_TO).run({ link, person, now })
}
