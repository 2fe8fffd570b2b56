/** What a run came to, in words. */
import type { RunState, RunSummary } from '$lib/core/requests/runs.ts'
import { showMoment } from '../dates.ts'

const WORDS: Readonly<Record<RunState, { readonly text: string; readonly tone: string }>> = {
	ready: { text: 'under way', tone: 'open' },
	waiting: { text: 'waiting', tone: 'open' },
	'given up': { text: 'given up', tone: 'bad' },
	cancelled: { text: 'cancelled', tone: '' },
	done: { text: 'done', tone: 'good' }
}

export interface SaidState {
	readonly text: string
	/** As stamps are painted. */
	readonly tone: string
	/** Why, or until when. */
	readonly more: string
}

export function sayState(run: Pick<RunSummary, 'state' | 'dueAt' | 'error' | 'waitsFor'>): SaidState {
	return { ...WORDS[run.state], more: run.error || (run.state === 'waiting' ? sayWait(run) : '') }
}

/** One that asked somebody is looked at now and then; that is nothing to be told. */
function sayWait({ waitsFor, dueAt }: Pick<RunSummary, 'waitsFor' | 'dueAt'>): string {
	if (waitsFor !== '') return `for ${waitsFor}`
	return dueAt === null ? '' : `until ${showMoment(dueAt)}`
}
