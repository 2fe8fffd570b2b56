/**
 * What came of the last button that was pressed, said at the foot of the app: the row itself may have left its list by then. It
 * stays, with the way back, until something else is pressed or it is put away.
 */
import { getContext, setContext } from 'svelte'
import { invalidateAll } from '$app/navigation'
import type { Pressed, ScreenPath } from '$lib/core/requests/screens.ts'
import type { Sent } from '../send.ts'
import { doOnScreen } from './do-on-screen.ts'

const KEY = Symbol('press note')

interface Said {
	readonly text: string
	readonly wrong: boolean
	/** By which it can be taken back, where it can. */
	readonly undo?: { readonly entry: number; readonly path: ScreenPath }
}

export class PressNote {
	said = $state.raw<Said | undefined>()

	/** Presses a button on a row, and says what came of it; `what`: the button's words, and its row's name in a list. */
	async press(path: ScreenPath, { line, row, what }: { line: string; row: string; what: string }): Promise<void> {
		this.said = undefined
		const answer: Sent<Pressed> = await doOnScreen(path, { kind: 'press', line, row })
		if (!answer.ok) return void (this.said = { text: answer.refusal.message, wrong: true })
		const { entry } = answer.value
		this.said = { text: `Done: ${what}.`, wrong: false, ...(entry === null ? {} : { undo: { entry, path } }) }
		await invalidateAll()
	}

	async takeBack(): Promise<void> {
		if (!this.said?.undo) return
		const { entry, path } = this.said.undo
		const answer = await doOnScreen(path, { kind: 'take back', entry })
		this.said = answer.ok ? { text: 'Taken back.', wrong: false } : { text: answer.refusal.message, wrong: true }
		if (answer.ok) await invalidateAll()
	}

	close(): void {
		this.said = undefined
	}
}

/** For the lines of the app below. */
export function providePressNote(): PressNote {
	return setContext(KEY, new PressNote())
}

export function usePressNote(): PressNote {
	return getContext<PressNote>(KEY)
}
