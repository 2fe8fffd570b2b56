/** Places that everybody, or some, can go to from anywhere. */

interface Goer {
	readonly isBuilder: boolean
	readonly isSteward: boolean
}

export interface PlaceToGo {
	readonly title: string
	readonly where: string
	readonly href: string
}

const EVERYBODY: readonly PlaceToGo[] = [
	{ title: 'Waiting on me', where: 'Go to', href: '/waiting' },
	{ title: 'What I did today', where: 'Go to', href: '/today' },
	{ title: 'All apps', where: 'Go to', href: '/' },
	{ title: 'My account', where: 'Go to', href: '/me' }
]
const BUILDERS: readonly PlaceToGo[] = [{ title: 'Start an app', where: 'Do', href: '/bench/new' }]
const STEWARDS: readonly PlaceToGo[] = [
	{ title: 'People and roles', where: 'Go to', href: '/people' },
	{ title: 'Workspace', where: 'Go to', href: '/workspace' },
	{ title: 'Logbook', where: 'Go to', href: '/logbook' }
]

export function placesOf({ isBuilder, isSteward }: Goer): readonly PlaceToGo[] {
	return [...EVERYBODY, ...(isBuilder ? BUILDERS : []), ...(isSteward ? STEWARDS : [])]
}
