/** How an app looks on the face of a phone: its paint, and the first letters of its name. */
import type { AppDocument } from './document.ts'

/** The paints as they are in the light, for what lies outside a page. */
export const PAINTS: Readonly<Record<AppDocument['colour'], string>> = {
	sea: '#24567f',
	bottle: '#1c6a4d',
	plum: '#6a3a5b',
	oxide: '#a33a2c',
	rope: '#80500c',
	slate: '#48525c'
}

/** A square of 512 px as SVG, with a margin within which a phone may cut it round. */
export function appIcon({ name, colour }: Pick<AppDocument, 'name' | 'colour'>): string {
	const letters = name
		.split(/\s+/)
		.flatMap((word) => [...word].find((sign) => /[\p{L}\p{N}]/u.test(sign)) ?? [])
		.slice(0, 2)
		.join('')
		.toUpperCase()
	return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 512 512"><rect width="512" height="512" fill="${PAINTS[colour]}"/><text x="256" y="256" fill="#fff" font-family="Archivo, system-ui, sans-serif" font-size="200" font-weight="700" text-anchor="middle" dominant-baseline="central">${letters}</text></svg>`
}

/** Of the Web App Manifest (W3C), by which a browser installs it. */
export function appManifest(
	{ name, about, colour, icon }: Pick<AppDocument, 'name' | 'about' | 'colour' | 'icon'>,
	base: string
): object {
	const pictures = icon
		? ['192', '512'].map((size) => ({
				src: `${base}/icon.png?size=${size}`,
				sizes: `${size}x${size}`,
				type: 'image/png'
			}))
		: [{ src: `${base}/icon.svg`, sizes: 'any', type: 'image/svg+xml' }]
	return {
		...{ id: base, name, short_name: name.slice(0, 12), start_url: base, scope: base },
		...(about === '' ? {} : { description: about }),
		...{ display: 'standalone', background_color: '#fbfbf7', theme_color: PAINTS[colour] },
		icons: ['any', 'maskable'].flatMap((purpose) => pictures.map((picture) => ({ ...picture, purpose })))
	}
}
