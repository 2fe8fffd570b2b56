/** The names of other programs that sentences may name, for the slots below. */
import { getContext, setContext } from 'svelte'

const KEY = Symbol('program names')

export function provideProgramNames(names: () => readonly string[]): void {
	setContext(KEY, names)
}

/** None, where no page provides them. */
export function useProgramNames(): () => readonly string[] {
	return getContext<(() => readonly string[]) | undefined>(KEY) ?? (() => [])
}
