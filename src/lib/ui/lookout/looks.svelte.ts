import type { WhoSees } from '$lib/core/requests/access.ts'
import { ask, send } from '../send.ts'
import { chooseLookers, whyNothing, type Looked } from './choose-lookers.ts'
import { differences, type Sights } from './sights.ts'
import { NO_SIGNAL, READ_AGAIN, SIGNAL, type ToldByFrame } from './tell-bench.ts'

export type Width = 'desk' | 'tablet' | 'phone'

/** One of the two views: as whom, on which width, and what its frame has told. */
export class Look {
	/** As whom; 0 while nobody is chosen. */
	person = $state(0)
	width = $state<Width>('desk')
	/** What the frame's address is known by; empty while there is none. */
	token = $state('')
	wrong = $state('')
	frame = $state<HTMLIFrameElement | undefined>()
	/** Whether it is played that there is no signal. */
	isCut = $state(false)
	sees = $state.raw<Sights | undefined>()
	/** The version that a frame which could not show its screen was asked to try again with. */
	#tried = 0

	constructor(width: Width) {
		this.width = width
	}

	async begin(app: number, person: number): Promise<void> {
		this.person = person
		// Nothing of whoever was looked as before stands under another name.
		this.token = this.wrong = ''
		this.sees = undefined
		this.isCut = false
		const answer = await send('POST', '/bench/looks', { kind: 'begin', app, person })
		// Somebody else may have been chosen meanwhile.
		if (this.person !== person) return
		this.token = answer.ok ? answer.value.token : ''
		this.wrong = answer.ok ? '' : answer.refusal.message
	}

	play(isCut: boolean): void {
		this.isCut = isCut
		this.frame?.contentWindow?.postMessage(isCut ? NO_SIGNAL : SIGNAL, location.origin)
	}

	/**
	 * A frame has told by which version of the draft it shows its screen. It hears nothing while it loads, and may have loaded
	 * before the last change was saved: then it is asked again.
	 */
	shows(draft: number | null, version: number): void {
		if (draft === null ? this.#tried < version : draft < version) this.readAgain()
		if (draft === null) this.#tried = version
	}

	readAgain(): void {
		this.frame?.contentWindow?.postMessage(READ_AGAIN, location.origin)
	}
}

/** The two views beside the lines, and what tells them apart. */
export class Looks {
	readonly views = [new Look('desk'), new Look('phone')] as const
	/** Who sees something of the draft; undefined until that is known. */
	seeing = $state.raw<WhoSees | undefined>()
	/** Whether something was tried on the copy since it was begun. */
	isTried = $state(false)
	/** Of the draft as the server has it. */
	#version = 0
	readonly #app: number
	readonly #people: () => readonly Looked[]

	/** Whether both get something to see, so that it can be compared. */
	readonly areBothSeen = $derived.by(() => this.views.every((view) => view.sees && !this.whyNothing(view)))
	/** What the two get otherwise, in sentences. */
	readonly apart = $derived.by(() => {
		const [one, other] = this.views
		if (!one.sees || !other.sees || one.person === other.person) return []
		const nameOf = (view: Look) => this.find(view)?.name ?? ''
		return differences({ name: nameOf(one), sees: one.sees }, { name: nameOf(other), sees: other.sees })
	})

	constructor(app: number, people: () => readonly Looked[]) {
		this.#app = app
		this.#people = people
	}

	find({ person }: Look): Looked | undefined {
		return this.#people().find((each) => each.person === person)
	}

	/** The tables of which somebody sees nothing, where they see nothing at all. */
	whyNothing({ person }: Look): WhoSees['tables'] | undefined {
		return this.seeing && whyNothing(person, this.seeing)
	}

	/** Asks for the two views once, as two people who see something. */
	async open(): Promise<void> {
		await this.lookAgain()
		if (!this.seeing) return
		chooseLookers(this.#people(), this.seeing).forEach((each, at) => {
			const view = this.views[at]
			if (view?.person === 0 && each) void view.begin(this.#app, each.person)
		})
	}

	async lookAgain(): Promise<void> {
		const answer = await ask(`/bench/looks?app=${this.#app}`)
		if (answer.ok) this.seeing = answer.value
		else for (const view of this.views) view.wrong = answer.refusal.message
	}

	/** The lines were written on: what the frames show may be another thing now. */
	readAgain(version = this.#version): void {
		this.#version = version
		for (const view of this.views) view.readAgain()
	}

	async beginAfresh(): Promise<void> {
		const answer = await send('DELETE', '/bench/looks', {})
		if (!answer.ok) return
		this.isTried = false
		this.readAgain()
	}

	/** What a frame tells; the line that is pointed at in it, where it is that. */
	hear(event: MessageEvent): string | undefined {
		if (event.origin !== location.origin) return undefined
		const view = this.views.find((each) => each.frame?.contentWindow === event.source)
		// Frames are pages of our own, under the same origin.
		const told = event.data as ToldByFrame | null
		if (!view || typeof told !== 'object' || told === null) return undefined
		if ('tinShedLine' in told) return told.tinShedLine
		if ('tinShedSees' in told) {
			view.sees = told.tinShedSees
			view.shows(told.tinShedDraft, this.#version)
		}
		if ('tinShedTried' in told) {
			this.isTried = true
			for (const each of this.views) if (each !== view) each.readAgain()
		}
		return undefined
	}
}
