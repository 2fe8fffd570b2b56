/** What a builder is told of the routines of an app: whether they start, and what each run came to. */

export type RunState = 'ready' | 'waiting' | 'given up' | 'cancelled' | 'done'

export interface RoutineState {
	readonly routine: string
	/** Whether the live release has it. */
	readonly isLive: boolean
	/** Why it does not start at present; blank where somebody paused it, null where it does start. */
	readonly paused: string | null
	/** Epoch ms: when a clock starts it next. */
	readonly nextAt: number | null
	/** How many runs there are; null for who does not see all that it reads. */
	readonly counts: { readonly waiting: number; readonly givenUp: number; readonly done: number } | null
}

export interface RunSummary {
	readonly id: string
	readonly routine: string
	readonly state: RunState
	/** The row that it began on, as its reader may know it; blank by the clock. */
	readonly row: string
	/** Whose doing started it; blank by the clock. */
	readonly by: string
	/** Epoch ms. */
	readonly beganAt: number
	readonly endedAt: number | null
	/** Who was asked and has not answered, as its reader may know them; blank where it waits for nobody. */
	readonly waitsFor: string
	/** When it goes on, where it waits. */
	readonly dueAt: number | null
	/** Why it was given up, or is tried again; a plain word where that might name what its reader may not see. */
	readonly error: string
}

export interface RunStep {
	/** The id of the step in the routine as it ran. */
	readonly step: string
	readonly row: string
	/** In a few words. */
	readonly cameTo: string
	/** Whom it went to, as its reader may know them. */
	readonly person: string
	readonly at: number
}

export interface RunSheet extends RunSummary {
	readonly release: number
	/** The name of the role that it acts as; blank where it acts as whoever pressed. */
	readonly actsAs: string
	/** Whether its reader sees all that it reads; if not, there are no steps. */
	readonly isHeld: boolean
	readonly steps: readonly RunStep[]
	/** The step that it stands at; blank once it has ended. */
	readonly standsAt: string
}

/** One that waits with somebody. */
export interface GivenUpRun extends RunSummary {
	readonly app: number
	/** Of the routine. */
	readonly name: string
}

/** What a routine would have started in the last days, and what its steps would have come to. */
export interface TriedRoutine {
	/** ISO dates. */
	readonly from: string
	readonly to: string
	/** How many entries of the history were read; whether there were more than are. */
	readonly read: number
	readonly isCut: boolean
	/** How often it would have started; by the clock, how often it comes in as many days from now. */
	readonly starts: number
	/** The newest of them, and saves that fitted and started nothing. */
	readonly shown: readonly TriedStart[]
	/** In a few words what each step would have come to, by its id. */
	readonly steps: Readonly<Record<string, string>>
	/** Why it cannot be tried; blank where it was. */
	readonly why: string
}

export interface TriedStart {
	readonly at: number
	/** The row as its builder may know it; blank by the clock. */
	readonly row: string
	readonly by: string
	/** Whether it would have started: a save while a crossing holds already does not. */
	readonly starts: boolean
}
