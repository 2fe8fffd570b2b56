/** Browsers in which somebody asked to be told while they are closed. */
import { AppError } from '$lib/core/app-error.ts'
import type { DeviceKeys } from '$lib/core/requests/notices.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'

export interface Device extends DeviceKeys {
	readonly id: number
}

const ADD = `
	INSERT INTO device (person, session, endpoint, p256dh, auth, agent, made_at)
	VALUES (@person, @session, @endpoint, @p256dh, @auth, @agent, @now)
	ON CONFLICT (endpoint) DO UPDATE SET
		person = excluded.person, session = excluded.session, p256dh = excluded.p256dh, auth = excluded.auth`
const REMOVE = `DELETE FROM device WHERE endpoint = @endpoint AND person = @person`
const DROP = `DELETE FROM device WHERE id = ?`
const OF_PERSON = `SELECT id FROM device WHERE person = ? ORDER BY id DESC`
const ONE = `
	SELECT d.id, d.endpoint, d.p256dh, d.auth FROM device AS d JOIN session AS s ON s.token_hash = d.session
	WHERE d.id = @id AND d.person = @person AND s.expires_at > @now`
const KEEP_LAST = `
	DELETE FROM device WHERE person = @person AND id NOT IN (SELECT id FROM device WHERE person = @person ORDER BY id DESC LIMIT @most)`
const KEYS = `SELECT value FROM meta WHERE key = 'push keys'`
const SET_KEYS = `INSERT INTO meta (key, value) VALUES ('push keys', ?) ON CONFLICT (key) DO NOTHING`

/** More browsers than anybody carries. */
const MOST = 10

export interface NewDevice extends DeviceKeys {
	readonly person: number
	/** The hash of the session that asks: with it the device is forgotten. */
	readonly session: string
	readonly agent: string
	readonly now: number
}

/** Whoever signs in there later is told instead. */
export function addDevice(store: Store, { person, now, ...device }: NewDevice): void {
	if (!isEndpoint(device.endpoint))
		throw new AppError('invalid', 'This browser gave no address at which it can be told. Load the page again.')
	store.prepare(ADD).run({ person, now, ...device })
	store.prepare(KEEP_LAST).run({ person, most: MOST })
	const entry = { at: now, person, through: 'account' as const, kind: 'be told on a device', table: null, row: null }
	writeHistory(store, { ...entry, body: { agent: device.agent } })
}

export function removeDevice(store: Store, { endpoint, person }: { endpoint: string; person: number }): void {
	store.prepare(REMOVE).run({ endpoint, person })
}

/** A push service knows it no more. */
export function dropDevice(store: Store, id: number): void {
	store.prepare(DROP).run(id)
}

export function devicesOf(store: Store, person: number): number[] {
	return store.prepare<number>(OF_PERSON).pluck().all(person)
}

/** Undefined once its session has ended, or another uses it. */
export function findDevice(store: Store, of: { id: number; person: number; now: number }): Device | undefined {
	return store.prepare<Device>(ONE).get(of)
}

/** The keys by which push services know this workspace (RFC 8292), sealed; null before there are any. */
export function readPushKeys(store: Store): string | null {
	return store.prepare<string>(KEYS).pluck().get() ?? null
}

/** Keeps them once: devices that were asked for know no others. */
export function keepPushKeys(store: Store, { sealed }: { sealed: string }): string {
	store.prepare(SET_KEYS).run(sealed)
	return readPushKeys(store) ?? sealed
}

function isEndpoint(endpoint: string): boolean {
	return URL.canParse(endpoint) && new URL(endpoint).protocol === 'https:'
}
