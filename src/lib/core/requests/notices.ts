/** What somebody was told, and how they are told by mail. */
import type { ReportTable } from './report.ts'

export const MAIL_WAYS = ['at once', 'once a day', 'never'] as const

export interface Telling {
	readonly mail: (typeof MAIL_WAYS)[number]
	/** Times of their own day, as `22:00`; blank for none. */
	readonly quietFrom: string
	readonly quietUntil: string
}

export interface Notice {
	readonly id: string
	readonly subject: string
	readonly body: string
	/** Whether it leads somewhere. */
	readonly hasLink: boolean
	/** Epoch ms. */
	readonly at: number
	readonly isRead: boolean
	/** The rows that it shows, as they were seen when it was written. */
	readonly report: ReportTable | null
	/** The file that came with it. */
	readonly fileName: string | null
}

export interface Notices {
	readonly notices: readonly Notice[]
	/** Of all there are. */
	readonly unread: number
	/** Whether there are older ones. */
	readonly isCut: boolean
}

/** Where a browser is told while it is closed, and the keys by which it opens what it is told (RFC 8291), as base64url. */
export interface DeviceKeys {
	readonly endpoint: string
	readonly p256dh: string
	readonly auth: string
}

/** What a closed browser is told: no more than stands on a locked screen for anybody to see. */
export interface PushWords {
	/** Of the workspace. */
	readonly from: string
	readonly subject: string
	/** A path of ours. */
	readonly open: string
}

/** Whether what leaves is held back, and how much waits. */
export interface Outgoing {
	/** Epoch ms; null where it leaves. */
	readonly heldSince: number | null
	readonly waiting: number
}
