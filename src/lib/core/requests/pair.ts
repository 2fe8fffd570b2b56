/** What a request asks and what it is answered, held together, so that both ends infer from one place. */
import type { z } from 'zod'

/** One kind of request, and the answer that belongs to it. */
export interface Pair<Asks, Answers> {
	readonly asks: Asks
	readonly answers: Answers
}

/** Requests that differ by their kind, each kind with an answer of its own; `void` where `Answers` does not name it. */
export type Kinds<Schema extends z.ZodType<{ kind: string }>, Answers = object> = {
	[K in z.output<Schema>['kind']]: Pair<
		Sendable<Extract<z.input<Schema>, { kind: K }>>,
		K extends keyof Answers ? Answers[K] : void
	>
}[z.output<Schema>['kind']]

/** What a schema takes, as a page holds it: nothing in it is changed on its way. */
export type Sendable<T> = unknown extends T ? T : { readonly [K in keyof T]: Sendable<T[K]> }

/** What comes back for what was asked. */
export type AnswerTo<Pairs, Asked> =
	Pairs extends Pair<infer Asks, infer Answers> ? (Asked extends Asks ? Answers : never) : never

export type AskedOf<Pairs> = Pairs extends Pair<infer Asks, unknown> ? Asks : never

/** Each of several kinds of request without a part that somebody else adds. */
export type Without<Asked, Part extends PropertyKey> = Asked extends unknown ? Omit<Asked, Part> : never
