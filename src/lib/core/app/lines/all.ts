/** Every kind of line that a screen can have. A new one is one file beside its siblings and one line here. */
import type { Sentence } from '../../sentence/parse.ts'
import { button } from './button.ts'
import { form } from './form.ts'
import { heading } from './heading.ts'
import { list } from './list.ts'
import { record } from './record.ts'

export const SCREEN_LINES: readonly Sentence[] = [heading, list, button, record, form]

export function screenSentence(kind: string): Sentence {
	const sentence = SCREEN_LINES.find((each) => each.kind.kind === kind)
	if (!sentence) throw new Error(`Cannot find screen line "${kind}"`)
	return sentence
}
