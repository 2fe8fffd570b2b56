/** The harbour trust's people, all invented. */
export interface DemoPerson {
	readonly name: string
	readonly roles: readonly DemoRole[]
	readonly harbour: string | null
}

export type DemoRole =
	| 'Builders'
	| 'Stewards'
	| 'Harbour masters'
	| 'Divers'
	| 'Berth clerks'
	| 'Stores keepers'
	| 'Finance'
	| 'Trust manager'
	| 'Visiting crews'

export const HARBOURS = [
	{ name: 'Varrow Quay', prefix: 'VQ', master: 'Osric Vane', controller: 'Petra Nankivell', moorings: 97 },
	{ name: 'Ness Hythe', prefix: 'NH', master: 'Maren Tolliver', controller: 'Petra Nankivell', moorings: 71 },
	{ name: 'Gull Stair', prefix: 'GS', master: 'Ottoline Grey', controller: 'Anselm Roke', moorings: 58 },
	{ name: 'Orrin Slip', prefix: 'OS', master: 'Davit Sorley', controller: 'Anselm Roke', moorings: 38 }
] as const

export const PEOPLE: readonly DemoPerson[] = [
	{ name: 'Saskia Holm', roles: ['Builders'], harbour: null },
	{ name: 'Jory Pendarrow', roles: ['Builders', 'Stores keepers'], harbour: 'Varrow Quay' },
	{ name: 'Ailith Brand', roles: ['Stewards'], harbour: null },
	{ name: 'Osric Vane', roles: ['Harbour masters'], harbour: 'Varrow Quay' },
	{ name: 'Maren Tolliver', roles: ['Harbour masters'], harbour: 'Ness Hythe' },
	{ name: 'Ottoline Grey', roles: ['Harbour masters'], harbour: 'Gull Stair' },
	{ name: 'Davit Sorley', roles: ['Harbour masters'], harbour: 'Orrin Slip' },
	{ name: 'Imke Dahl', roles: ['Divers'], harbour: 'Ness Hythe' },
	{ name: 'Tobiah Lunn', roles: ['Divers'], harbour: 'Gull Stair' },
	{ name: 'Bram Oyelaran', roles: ['Divers'], harbour: 'Varrow Quay' },
	{ name: 'Signe Haverill', roles: ['Divers'], harbour: 'Varrow Quay' },
	{ name: 'Callum Okonjo', roles: ['Divers'], harbour: 'Orrin Slip' },
	{ name: 'Nerys Ferreday', roles: ['Divers'], harbour: 'Ness Hythe' },
	{ name: 'Ruan Lindqvist', roles: ['Divers'], harbour: 'Gull Stair' },
	{ name: 'Ebba Rowe-Singh', roles: ['Divers'], harbour: null },
	{ name: 'Corrie Ashdown', roles: ['Berth clerks'], harbour: 'Varrow Quay' },
	{ name: 'Lowen Abara', roles: ['Berth clerks'], harbour: 'Ness Hythe' },
	{ name: 'Sela Marrack', roles: ['Berth clerks'], harbour: 'Orrin Slip' },
	{ name: 'Wim Pascoe-Reyes', roles: ['Stores keepers'], harbour: 'Varrow Quay' },
	{ name: 'Hale Dunmore', roles: ['Stores keepers'], harbour: 'Gull Stair' },
	{ name: 'Petra Nankivell', roles: ['Finance'], harbour: null },
	{ name: 'Anselm Roke', roles: ['Finance'], harbour: null },
	{ name: 'Jutta Carrow', roles: ['Trust manager'], harbour: null },
	{ name: 'Edda Trewin', roles: ['Harbour masters', 'Divers'], harbour: 'Orrin Slip' }
]

export function emailOf(name: string): string {
	return `${name.toLowerCase().replace(/[^a-z]+/g, '.')}@varrow.example`
}
