/** What a phone is told of an app that it installs. */
import { expect, test } from 'vitest'
import { appIcon, appManifest, PAINTS } from './app-icon.ts'

test.each([
	['Mooring Care', 'MC'],
	['stores', 'S'],
	['  "Quay" & <b>Side</b> ', 'QB'],
	['—', ''],
	['Ærø øl', 'ÆØ']
])('the icon of %s has its first letters, and nothing of it is read as markup', (name, letters) => {
	const icon = appIcon({ name, colour: 'rope' })
	expect(icon).toContain(`>${letters}</text>`)
	expect(icon.match(/</g)).toHaveLength(5)
	expect(icon).toContain(PAINTS.rope)
})

test('the manifest opens the app and stays in it', () => {
	expect(appManifest({ name: 'Mooring Care', about: '', colour: 'sea', icon: null }, '/app/1')).toMatchObject({
		...{ name: 'Mooring Care', short_name: 'Mooring Care', start_url: '/app/1', scope: '/app/1' },
		...{ display: 'standalone', theme_color: '#24567f', icons: [{ src: '/app/1/icon.svg', purpose: 'any' }, {}] }
	})
})
