/** How pages look on one device, as its cookie says it: `dark.more`. Anybody may have written it, so only known words count. */
export const LOOK_COOKIE = 'tin_shed_paper'

export interface LookOfPages {
	/** As the device wishes, where it is undefined. */
	readonly theme: 'light' | 'dark' | undefined
	readonly contrast: boolean
}

export function readLook(text = ''): LookOfPages {
	const said = text.split('.')
	return {
		theme: said.includes('dark') ? 'dark' : said.includes('light') ? 'light' : undefined,
		contrast: said.includes('more')
	}
}

export function writeLook({ theme, contrast }: LookOfPages): string {
	return [theme, contrast ? 'more' : undefined].filter(Boolean).join('.')
}
