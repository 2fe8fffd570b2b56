/** The icons that a screen or button can carry, by plain names, and which one its words ask for. */

/** Each with words that ask for it, as they begin; the sprite `static/icons.svg` has one of each name. */
const ASKED_BY = {
	home: ['home', 'start', 'welcome', 'overview'],
	list: ['list', 'all'],
	table: ['table', 'register', 'sheet'],
	add: ['add', 'new', 'record'],
	done: ['done', 'approve', 'sound', 'finish', 'complete'],
	calendar: ['calendar', 'due', 'week', 'month', 'plan', 'date', 'booking'],
	clock: ['clock', 'time', 'late', 'overdue', 'today', 'hour', 'shift'],
	map: ['map', 'chart of', 'area'],
	place: ['place', 'site', 'harbour', 'berth', 'where', 'address'],
	anchor: ['anchor', 'mooring', 'buoy', 'chain'],
	ship: ['ship', 'vessel', 'ferry', 'arrival'],
	boat: ['boat', 'yacht', 'dinghy'],
	water: ['water', 'tide', 'sea', 'dive', 'swim'],
	spanner: ['spanner', 'repair', 'mend', 'maintenance', 'job', 'upkeep'],
	hammer: ['hammer', 'work', 'build', 'yard'],
	parcel: ['parcel', 'delivery', 'order', 'pick'],
	stock: ['stock', 'store', 'item', 'part'],
	basket: ['basket', 'shop', 'buy', 'purchase', 'sale'],
	money: ['money', 'spend', 'cost', 'fee', 'arrears', 'budget', 'pay'],
	receipt: ['receipt', 'invoice', 'bill', 'request'],
	paper: ['paper', 'document', 'report', 'permit', 'note', 'form'],
	folder: ['folder', 'file', 'archive'],
	person: ['person', 'holder', 'me', 'profile', 'visitor'],
	people: ['people', 'team', 'crew', 'staff', 'customer', 'contact', 'diver'],
	phone: ['phone', 'call'],
	letter: ['letter', 'mail', 'message'],
	camera: ['camera', 'photo', 'picture'],
	code: ['code', 'scan', 'label'],
	pencil: ['pencil', 'edit', 'change', 'write', 'sign'],
	search: ['search', 'find', 'look'],
	bell: ['bell', 'warning', 'alert', 'remind'],
	flag: ['flag', 'incident', 'defect', 'issue', 'fault'],
	chart: ['chart', 'figure', 'count', 'number', 'total', 'statistic'],
	gauge: ['gauge', 'meter', 'reading', 'pressure', 'level'],
	key: ['key', 'access'],
	lock: ['lock', 'closed', 'private'],
	lifebuoy: ['lifebuoy', 'safety', 'rescue', 'emergency', 'help'],
	warmth: ['warmth', 'temperature', 'cold', 'weather'],
	lorry: ['lorry', 'truck', 'transport', 'vehicle', 'van'],
	shed: ['shed', 'warehouse', 'quay', 'building'],
	checklist: ['checklist', 'check', 'inspection', 'inspect', 'survey', 'round', 'audit'],
	star: ['star', 'favourite', 'rating', 'review'],
	fuel: ['fuel', 'diesel', 'oil'],
	weight: ['weight', 'weigh', 'catch', 'load'],
	play: ['play', 'film', 'video', 'watch']
} as const satisfies Readonly<Record<string, readonly string[]>>

export type Icon = keyof typeof ASKED_BY

// The record's own keys.
export const ICONS = Object.keys(ASKED_BY) as readonly Icon[]

/** The icon for which the earliest of some words asks; undefined where none does. */
export function proposeIcon(words: string): Icon | undefined {
	const said = words.toLowerCase().match(/\p{L}+/gu) ?? []
	for (const word of said) {
		const found = ICONS.find((icon) => ASKED_BY[icon].some((asking) => word.startsWith(asking)))
		if (found) return found
	}
	return undefined
}
