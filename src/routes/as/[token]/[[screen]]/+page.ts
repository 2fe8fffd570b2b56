import { loadComponents } from '$lib/ui/lines/components.ts'

/** The lines' own scripts come with the page, so that it stands there whole. */
export async function load({ data }) {
	return { ...data, components: await loadComponents(data) }
}
