import type { ScreenLine } from '$lib/core/app/lines/all.ts'
import type { Standing } from '../rights/rights-of-actor.ts'

/** A line for some roles hides from others; what they may see of its rows is another matter. */
export function isFor({ who }: Pick<ScreenLine, 'who'>, { roles }: Pick<Standing, 'roles'>): boolean {
	return who.length === 0 || who.some((role) => roles.has(role))
}
