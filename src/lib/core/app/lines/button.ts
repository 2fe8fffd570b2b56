import { z } from 'zod'
import { mistake, SCREEN_GONE, type Found } from '../../document/findings.ts'
import { appFile, id, words } from '../../document/parts.ts'
import { FILE_FORMATS, type FileFormat } from '../../exchange/file-formats.ts'
import { ICONS } from '../../text/icons.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'
import { checkGiven, givenBy } from './with.ts'

// The record has these keys and no others.
const FORMATS = Object.keys(FILE_FORMATS) as FileFormat[]

export const buttonSchema = z.object({
	...lineParts,
	kind: z.literal('button'),
	label: words,
	does: z.discriminatedUnion('kind', [
		z.object({ kind: z.literal('open'), screen: id }),
		z.object({ kind: z.literal('run'), routine: id }),
		z.object({ kind: z.literal('link'), address: z.string().max(2_000) }),
		z.object({ kind: z.literal('set') }),
		z.object({ kind: z.literal('copy link') }),
		z.object({ kind: z.literal('export'), format: z.enum(FORMATS) }),
		z.object({ kind: z.literal('print') }),
		z.object({ kind: z.literal('start over') })
	]),
	icon: z.enum(ICONS).nullable().default(null),
	/** Over its words: it stands as a tile then. */
	picture: appFile.nullable().default(null)
})
export type ButtonLine = z.infer<typeof buttonSchema> & { readonly lines: readonly TreeLine[] }

export const button: LineEntry<ButtonLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'button',
			about:
				'Opens a screen, with values where it is given some, runs a routine on the row that is shown, leads somewhere, gives a list as a file, or prints',
			parts: withWhom(
				'Button ',
				{ key: 'label', type: 'text', title: 'its words' },
				' ',
				{
					key: 'does',
					type: 'does',
					title: 'opens or runs something',
					begins: ['opens', 'runs', 'leads to', 'gives', 'prints', 'sets', 'copies', 'starts over']
				},
				{ key: 'icon', type: 'icon', title: 'Its icon', before: ', with the icon ', clause: 'with an icon…' },
				{
					key: 'picture',
					type: 'picture',
					title: 'Its picture',
					before: ', with the picture ',
					clause: 'with a picture…'
				}
			)
		},
		blank: { kind: 'button', label: '', does: null, icon: null, picture: null, who: [], lines: [] }
	},
	holds: ['with'],
	check(line, around) {
		const { label, does } = line
		if (label.trim() === '') return mistake('The button has no words on it.')
		if (does === null) return mistake('The button does nothing yet. Choose what it opens or runs.')
		return [...checkWhom(line, around), ...checkDoes(does, around), ...checkGivenBy(line, around)]
	}
}

/** What an address may begin with: nothing that runs in the page, or reads a file. */
const SAFE_ADDRESS = /^(https?:\/\/[^\s]+|mailto:[^\s]+@[^\s]+|tel:\+?[\d ()-]+)$/i

/** Whether a button may lead there: what is no address at all would break the page that shows it. */
export function isSafeAddress(address: string): boolean {
	return SAFE_ADDRESS.test(address) && URL.canParse(address)
}

function checkDoes(does: ButtonLine['does'], { hasScreen, hasButtonRoutine, hasList }: Around): Found[] {
	switch (does.kind) {
		case 'open':
			return hasScreen(does.screen) ? [] : mistake(SCREEN_GONE)
		case 'run':
			return hasButtonRoutine(does.routine) ? [] : mistake('The routine it runs is gone, or starts by itself.')
		case 'link':
			return isSafeAddress(does.address)
				? []
				: mistake('It leads nowhere: an address begins with https://, http://, mailto: or tel:.')
		case 'export':
			return hasList ? [] : mistake('There is no list on this screen that it could give as a file.')
		case 'set':
		case 'copy link':
		case 'print':
		case 'start over':
			return []
	}
}

function checkGivenBy(line: ButtonLine, around: Around): Found[] {
	const given = givenBy(line)
	const { does } = line
	if (does.kind !== 'open' && does.kind !== 'set')
		return given.length === 0
			? []
			: mistake('It opens no screen, so nothing can be given. Take out what it is given with.')
	if (does.kind === 'set' && given.length === 0)
		return mistake('It sets nothing yet. Add a line below it: With … as ….')
	const wanted = does.kind === 'open' ? around.heldOn(does.screen) : around.here
	return given.flatMap((each) => checkGiven(each, wanted, around))
}
