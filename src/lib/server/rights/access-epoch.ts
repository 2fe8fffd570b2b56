/**
 * What somebody holds, found once for as long as nothing that decides it changes: the workspace document, or a row by which
 * roles, teams, grants, settings or people are kept. Triggers draw a new number
 * with each of those changes, in the database itself, so that it holds in every thread, every snapshot and after a rollback.
 */
import { readsOwnRowOnly } from '$lib/core/formula/syntax/walk.ts'
import type { Db } from '../store/open.ts'
import { settledTurns } from '../store/turns.ts'
import type { Store } from '../store/store.ts'

const EPOCH = `SELECT n FROM access_epoch`
const IS_WATCHED = `SELECT count(*) FROM sqlite_schema WHERE type = 'trigger' AND name GLOB 'epoch_people_*'`

const VERBS = ['insert', 'update', 'delete'] as const

/** Lets changes of people turn the epoch. Without it nothing is remembered. */
export function watchPeople(db: Db, people: number): void {
	for (const verb of VERBS)
		db.exec(
			`CREATE TRIGGER IF NOT EXISTS epoch_people_${verb} AFTER ${verb} ON t${people} BEGIN UPDATE access_epoch SET n = random() % 9007199254740991; END`
		)
}

interface Remembered<T> {
	readonly epoch: number
	/** Of the epoch on this connection, when it was asked last and no turn was open: none since, and it need not be asked. */
	turns: number | undefined
	readonly version: number
	/** Whether it may be remembered at all under this version. */
	readonly sound: boolean
	readonly held: Map<number, T>
}

/** Makes a memory of one thing by person. It is the caller's to keep what it gives for no longer than a transaction. */
export function rememberHeld<T>(find: (store: Store, person: number) => T): (store: Store, person: number) => T {
	const memories = new WeakMap<Store, Remembered<T>>()
	return (store, person) => {
		const { version } = store.workspace()
		const turns = settledTurns(store.db, 'access_epoch')
		let memory = memories.get(store)
		if (memory?.version !== version || turns === undefined || memory.turns !== turns) {
			const epoch = store.pluck<number>(EPOCH) ?? 0
			if (memory?.epoch !== epoch || memory.version !== version) {
				const sound = memory?.version === version ? memory.sound : isSound(store)
				memory = { epoch, turns, version, sound, held: new Map() }
				memories.set(store, memory)
			}
			memory.turns = turns
		}
		if (!memory.sound) return find(store, person)
		const known = memory.held.get(person)
		if (known !== undefined) return known
		const found = find(store, person)
		if (memory.held.size < MOST_HELD) memory.held.set(person, found)
		return found
	}
}

const MOST_HELD = 5_000

/** A role's condition that reads further than the person's row could turn without a change of people. */
function isSound(store: Store): boolean {
	const watched = store.prepare(IS_WATCHED).pluck().get() === VERBS.length
	return watched && store.workspace().roles.every(({ where }) => !where || readsOwnRowOnly(where))
}
