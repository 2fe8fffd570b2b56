/**
 * What came of the last button that was pressed, said at the foot of the app: the row itself may have left its list by then. It
 * stays, with the way back, until something else is pressed or it is put away.
 */
import { getContext, setContext } from 'svelte'
import { goto } from '$app/navigation'
import { page } from '$app/state'
import type { ScreenPath } from '$lib/core/requests/screens.ts'
import type { Press, Pressed } from '$lib/core/requests/screen-doings.ts'
import { countOf } from '$lib/core/text/count.ts'
import type { Sent } from '../send.ts'
import { doOnScreen } from './do-on-screen.ts'
import { heldIn } from './screen-address.ts'
import type { ShownNow } from './shown-now.svelte.ts'

const KEY = Symbol('press note')

/** So many presses go with one request. */
const AT_ONCE = 200

export interface PressOn {
	readonly press: Press
	/** The row's name, for what is refused. */
	readonly name: string
}

interface Said {
	readonly text: string
	readonly wrong: boolean
	/** Rows on which it was refused, each with why. */
	readonly refused?: readonly string[]
	/** By which it can be taken back, where it can. */
	readonly undo?: { readonly entries: readonly number[]; readonly path: ScreenPath }
}

export class PressNote {
	said = $state.raw<Said | undefined>()
	readonly #now: ShownNow

	constructor(now: ShownNow) {
		this.#now = now
	}

	/** What came of something that writes nothing. */
	say(text: string, wrong = true): void {
		this.said = { text, wrong }
	}

	/** Presses a button on a row, and says what came of it; `what`: the button's words, and its row's name in a list. */
	async press(path: ScreenPath, press: Press, what: string): Promise<boolean> {
		this.said = undefined
		return this.#now.changing(press.row, async () => this.#told(path, await ask(path, press), what))
	}

	/** Runs a routine on the row that has a code. */
	async scan(path: ScreenPath, { line, code }: { line: string; code: string }): Promise<boolean> {
		this.said = undefined
		return this.#told(path, await doOnScreen(path, { kind: 'scan', line, code }), code)
	}

	async #told(path: ScreenPath, answer: Sent<Pressed>, what: string): Promise<boolean> {
		if (!answer.ok) {
			this.said = { text: answer.refusal.message, wrong: true }
			return false
		}
		const text = answer.value.says ?? `Done: ${what}.`
		this.said = { text, wrong: false, ...undoOf(path, [answer.value]) }
		const { opens } = answer.value
		if (opens) await goto(addressOf(path, opens))
		else await this.#readAgain()
		return true
	}

	/** The same on several rows: each is done or refused by itself. */
	async pressAll(path: ScreenPath, on: readonly PressOn[], what: string): Promise<void> {
		this.said = undefined
		const done: Pressed[] = []
		const refused: string[] = []
		for (let at = 0; at < on.length; at += AT_ONCE) {
			if (at > 0) this.said = { text: `${what}: ${at} of ${on.length}…`, wrong: false }
			const some = on.slice(at, at + AT_ONCE)
			const answer = await doOnScreen(path, { kind: 'press all', presses: some.map(({ press }) => press) })
			if (!answer.ok) {
				refused.push(answer.refusal.message)
				break
			}
			for (const [i, each] of answer.value.entries())
				if ('refused' in each) refused.push(`${some[i]?.name}: ${each.refused}`)
				else done.push(each)
		}
		const text = `${what}: done on ${done.length} of ${countOf(on.length, 'row')}.`
		this.said = { text, wrong: refused.length > 0, refused, ...undoOf(path, done) }
		await this.#readAgain()
	}

	async takeBack(): Promise<void> {
		if (!this.said?.undo) return
		const { entries, path } = this.said.undo
		const refused: string[] = []
		for (const entry of entries.toReversed()) {
			const answer = await doOnScreen(path, { kind: 'take back', entry })
			if (!answer.ok) refused.push(answer.refusal.message)
		}
		const isWhole = refused.length === 0
		const text = isWhole ? 'Taken back.' : (refused[0] ?? '')
		this.said = { text, wrong: !isWhole, refused: refused.slice(1) }
		await this.#readAgain()
	}

	async #readAgain(): Promise<void> {
		await this.#now.readAgain(null, heldIn(page.url))
	}

	close(): void {
		this.said = undefined
	}
}

/** Beside the screen on which it was pressed, with the way back. */
function addressOf(path: ScreenPath, { screen, row }: NonNullable<Pressed['opens']>): string {
	const at = path.lastIndexOf('/')
	const from = path.slice(at + 1)
	return `${path.slice(0, at)}/${screen}${row === null ? '' : `?row=${row}&from=${from}`}`
}

function ask(path: ScreenPath, press: Press): Promise<Sent<Pressed>> {
	return doOnScreen(path, press)
}

function undoOf(path: ScreenPath, done: readonly Pressed[]): Pick<Said, 'undo'> {
	const entries = done.flatMap(({ entry }) => entry ?? [])
	return entries.length === 0 ? {} : { undo: { entries, path } }
}

/** For the lines of the app below. */
export function providePressNote(now: ShownNow): PressNote {
	return setContext(KEY, new PressNote(now))
}

export function usePressNote(): PressNote {
	return getContext<PressNote>(KEY)
}
