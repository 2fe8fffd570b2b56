/** Passwords: long enough, not easily guessed, kept as argon2id hashes. */
import { hash, verify } from '@node-rs/argon2'
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import * as common from '@zxcvbn-ts/language-common'
import { randomBytes } from 'node:crypto'

/** OWASP's least for argon2id: 19 MiB, two passes, one lane. */
const ARGON2 = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }
const LEAST = 10
const MOST = 200
/** Of the library's 0 to 4: "safely unguessable" is 3, "somewhat guessable" 2. */
const STRENGTH = 2

const judge = new ZxcvbnFactory({ dictionary: common.dictionary, graphs: common.adjacencyGraphs })

/** A hash of no password, so that an unknown address takes as long as a wrong password. */
const NOBODY = hash(randomBytes(16).toString('hex'), ARGON2)

/** The argon2id hash of a password, worked out away from the main thread. */
export function hashPassword(password: string): Promise<string> {
	return hash(password, ARGON2)
}

export async function isRight(password: string, kept: string | undefined): Promise<boolean> {
	const right = await verify(kept ?? (await NOBODY), password, ARGON2).catch(() => false)
	return right && kept !== undefined
}

/** What is wrong with a new password, in one sentence; undefined if it is good. `known`: words that belong to its owner. */
export function findWeakness(password: string, known: readonly string[]): string | undefined {
	if (password.length < LEAST)
		return `Use at least ${LEAST} characters. Three or four words that do not belong together do well.`
	if (password.length > MOST) return `Use at most ${MOST} characters.`
	const words = known.flatMap((each) => each.split(/[^\p{L}\p{N}]+/u)).filter((word) => word.length > 2)
	const { score } = judge.check(password, [...known, ...words])
	return score < STRENGTH
		? 'This password is quickly guessed: it is common, or made of your name. Take words that do not belong together.'
		: undefined
}
