/** What a formula that is being written reads of its screen. */
import type { Standing } from '$lib/core/formula/check/rename.ts'
import { nameKey } from '$lib/core/text/key.ts'

/** What a screen holds, by name, as the page of its builder says. */
export type HeldHere = NonNullable<Standing['here']>

/** What a formula reads of its screen, by name. */
export function chosenIn(text: string, here: HeldHere): string[] {
	const read = [...text.matchAll(/\bhere\.([\p{L}\p{N}_]+)/giu)].map(([, name = '']) => nameKey(name))
	return Object.keys(here).filter((name) => read.includes(nameKey(name)))
}
