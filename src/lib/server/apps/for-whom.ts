import type { Standing } from '../rights/rights-of-actor.ts'

/** A line or screen for some roles hides from others; what they may see of its rows is another matter. */
export function isFor({ who }: { readonly who: readonly number[] }, { roles }: Pick<Standing, 'roles'>): boolean {
	return who.length === 0 || who.some((role) => roles.has(role))
}
