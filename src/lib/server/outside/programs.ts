/** Other programs with which this one speaks, each by a secret that both hold. Stewards add and remove them. */
import { randomBytes } from 'node:crypto'
import { AppError } from '$lib/core/app-error.ts'
import type { OtherProgram } from '$lib/core/requests/programs.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { writeHistory } from '../history/history.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'
import type { Store } from '../store/store.ts'

/** With its secret as it is sealed, for the server's own use. */
export interface SealedProgram extends OtherProgram {
	readonly sealedSecret: string
}

const COLUMNS = `id, name, address, key_id AS keyId, made_at AS madeAt`
const LIST = `SELECT ${COLUMNS} FROM program ORDER BY name_key`
const BY_KEY = `SELECT ${COLUMNS}, sealed_secret AS sealedSecret FROM program WHERE key_id = ?`
const BY_NAME = `SELECT ${COLUMNS}, sealed_secret AS sealedSecret FROM program WHERE name_key = ?`
const BY_ID = `SELECT ${COLUMNS} FROM program WHERE id = ?`
const ADD = `
	INSERT INTO program (name, name_key, address, key_id, sealed_secret, made_at, made_by)
	VALUES (@name, @nameKey, @address, @keyId, @sealedSecret, @now, @by) ON CONFLICT (name_key) DO NOTHING`
const RENEW = `UPDATE program SET sealed_secret = @sealedSecret, made_at = @now WHERE id = @id`
const REMOVE = `DELETE FROM program WHERE id = ?`

const SECRET_BYTES = 32
const MOST_NAME = 60

/** A secret that nobody guesses, as base64. */
export function newSecret(): string {
	return randomBytes(SECRET_BYTES).toString('base64')
}

/** For stewards alone. */
export function listPrograms(store: Store, { actor }: ByActor): OtherProgram[] {
	refuseUnlessSteward(store, actor)
	return store.prepare<OtherProgram>(LIST).all()
}

/** What builders may name. */
export function programNames(store: Store, { actor }: ByActor): string[] {
	refuseUnlessBuilder(store, actor)
	return store
		.prepare<OtherProgram>(LIST)
		.all()
		.map(({ name }) => name)
}

export function programByKey(store: Store, { keyId }: { keyId: string }): SealedProgram | null {
	return store.prepare<SealedProgram>(BY_KEY).get(keyId) ?? null
}

export function programByName(store: Store, name: string): SealedProgram | undefined {
	return store.prepare<SealedProgram>(BY_NAME).get(nameKey(name))
}

export interface NewProgram extends ByActor {
	readonly name: string
	readonly address: string
	readonly sealedSecret: string
}

export function addProgram(
	store: Store,
	{ name: given, address: typed, sealedSecret, actor, now }: NewProgram
): OtherProgram {
	refuseUnlessSteward(store, actor)
	const name = given.trim()
	if (name === '' || name.length > MOST_NAME)
		throw new AppError('invalid', `Say what the program is called, in at most ${MOST_NAME} letters.`)
	const address = readAddress(typed)
	const keyId = `${nameKey(name).replace(/[^a-z0-9]+/g, '-')}-${randomBytes(3).toString('hex')}`
	const added = store
		.prepare(ADD)
		.run({ name, nameKey: nameKey(name), address, keyId, sealedSecret, now, by: actor.person })
	if (added.changes === 0) throw new AppError('invalid', `There is a program that is called ${name} already.`)
	note(store, { actor, now }, 'add a program', { name, address })
	return getProgram(store, Number(added.lastInsertRowid))
}

/** The secret of before serves no more. */
export function renewProgram(
	store: Store,
	{ id, sealedSecret, actor, now }: ByActor & { id: number; sealedSecret: string }
): OtherProgram {
	refuseUnlessSteward(store, actor)
	const found = getProgram(store, id)
	store.prepare(RENEW).run({ id, sealedSecret, now })
	note(store, { actor, now }, 'renew a secret', { name: found.name })
	return found
}

/** It may ask for nothing any more, and is called no more. */
export function removeProgram(store: Store, { id, actor, now }: ByActor & { id: number }): void {
	refuseUnlessSteward(store, actor)
	const { name } = getProgram(store, id)
	store.prepare(REMOVE).run(id)
	note(store, { actor, now }, 'remove a program', { name })
}

function getProgram(store: Store, id: number): OtherProgram {
	const found = store.prepare<OtherProgram>(BY_ID).get(id)
	if (!found) throw new AppError('not_found', 'This program is gone already.')
	return found
}

/** As it is kept: without what comes after a path, and without a slash at its end. */
function readAddress(typed: string): string {
	const text = typed.trim()
	if (text === '') return ''
	const url = URL.canParse(text) ? new URL(text) : undefined
	if (
		!url ||
		!['https:', 'http:'].includes(url.protocol) ||
		url.username !== '' ||
		url.search !== '' ||
		url.hash !== ''
	)
		throw new AppError(
			'invalid',
			`"${text}" is no address of a program. Write it like https://orders.varrow.example/in.`
		)
	return (url.origin + url.pathname).replace(/\/+$/, '')
}

function note(store: Store, { actor, now }: ByActor, kind: string, body: Readonly<Record<string, string>>): void {
	const entry = { at: now, person: actor.person, through: 'Workspace' as const, kind, table: null, row: null }
	writeHistory(store, { ...entry, body })
}
