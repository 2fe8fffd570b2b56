import { typeFromName } from './infer-name.ts'

const PICTURE = /^data:image\/|^https?:\/\/\S+\.(jpe?g|png|gif|webp|avif|bmp|tiff?|heic)([?#]\S*)?$/i

/**
 * Whether a column of web addresses speaks of pictures: by its name ("photo"), or because most of its values end as pictures do.
 * @param values some of its values, blank ones among them
 */
export function arePictureAddresses(name: string, values: readonly string[]): boolean {
	const filled = values.filter((value) => value.trim() !== '')
	if (filled.length === 0) return false
	const pictures = filled.filter((value) => PICTURE.test(value.trim())).length
	return typeFromName(name) === 'photo' || pictures * 2 > filled.length
}
