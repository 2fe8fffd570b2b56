import { expect, test } from 'vitest'
import { arePictureAddresses } from './picture-addresses.ts'

test.each([
	['link', ['https://pictures.example/a.jpg', 'https://pictures.example/b.PNG?size=2', ''], true],
	['link', ['https://pictures.example/a.jpg', 'https://harbour.example/notes', 'https://harbour.example/log'], false],
	['photo', ['https://harbour.example/show?no=14'], true],
	['last photograph', ['https://harbour.example/show?no=14'], true],
	['link', ['data:image/png;base64,AAAA'], true],
	['photo', ['', ' '], false],
	['link', ['javascript:alert(1)//.jpg'], false]
])('%s with %j: %s', (name, values, are) => {
	expect(arePictureAddresses(name, values)).toBe(are)
})
