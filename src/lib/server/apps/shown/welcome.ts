import type { LineOf } from '$lib/core/app/lines/all.ts'
import { givenBy } from '$lib/core/app/lines/with.ts'
import { isFor } from '../for-whom.ts'
import { asText, toHtml } from './text.ts'
import { screenFor, type ShownAs } from './view.ts'

export const welcome: ShownAs<LineOf<'welcome'>> = {
	holdsSomething: () => false,
	show({ id, last, screen, once, lines }, view) {
		const pages = lines.flatMap((line) =>
			line.kind === 'leaf' && isFor(line, view.standing)
				? [
						{
							id: line.id,
							title: line.title,
							html: toHtml(line.text, (formula) => asText(formula, view)),
							picture: line.picture && { sha: line.picture.sha, says: line.says }
						}
					]
				: []
		)
		const opens = screen !== null && screenFor(screen, view) ? screen : null
		return pages.length === 0
			? []
			: [{ id, kind: 'welcome', pages, last, opens, gives: givenBy({ lines }).length > 0, once: once !== null }]
	}
}
