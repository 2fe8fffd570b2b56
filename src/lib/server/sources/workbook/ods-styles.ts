/** What the styles of an OpenDocument spreadsheet say of its cells' values (ODF 1.3, part 3, 16.27 and 17.3). */
import { PLAIN_NUMBER, type CellFormat } from '$lib/core/exchange/number-format.ts'
import { signOf } from '$lib/core/table/kinds/currency.ts'
import type { Tag, XmlHandlers } from './xml.ts'

/** The money of a country that a style names in place of a sign (ISO 3166-1 to ISO 4217). */
const MONEY_OF: Readonly<Record<string, string>> = {
	...{ GB: '£', US: '$', JP: '¥', CH: 'CHF', NO: 'NOK', SE: 'SEK', DK: 'DKK', IS: 'ISK', PL: 'PLN', CZ: 'CZK' },
	...{ CN: 'CNY', IN: 'INR', CA: 'CAD', AU: 'AUD', NZ: 'NZD', ZA: 'ZAR' },
	...Object.fromEntries(
		['AT', 'BE', 'DE', 'ES', 'FI', 'FR', 'GR', 'IE', 'IT', 'LU', 'NL', 'PT'].map((country) => [country, '€'])
	)
}
interface DataStyle {
	readonly kind: 'number' | 'currency' | 'percentage' | 'date' | 'time' | 'text'
	readonly country: string
	/** A clock that runs past midnight is a span. */
	readonly runsOn: boolean
	sign: string
	digits: number
	places: number
	isGrouped: boolean
	/** The style for positive numbers, where this one is for the rest. */
	positive: string | undefined
}

const DATA_STYLE = /^(number|currency|percentage|date|time|text)-style$/

/** Gathers styles as they pass by, of `styles.xml` and then of the document itself, whose own win. */
export class OdsStyles implements XmlHandlers {
	private readonly dataStyles = new Map<string, DataStyle>()
	private readonly cells = new Map<string, { readonly data: string | undefined; readonly parent: string | undefined }>()
	private readonly hiddenTables = new Set<string>()
	private tableStyle = ''
	private current: DataStyle | undefined
	private isSymbol = false

	readonly open = ({ name, attributes }: Tag): void => {
		const [, kind] = DATA_STYLE.exec(name) ?? []
		if (kind !== undefined) {
			this.current = {
				// The elements looked at are named after the kinds.
				kind: kind as DataStyle['kind'],
				country: attributes['number:country'] ?? '',
				runsOn: attributes['number:truncate-on-overflow'] === 'false',
				sign: '',
				digits: 0,
				places: 0,
				isGrouped: false,
				positive: undefined
			}
			this.dataStyles.set(attributes['style:name'] ?? '', this.current)
		} else if (name === 'currency-symbol') {
			this.isSymbol = true
			if (this.current) this.current.sign = MONEY_OF[attributes['number:country'] ?? this.current.country] ?? ''
		} else if (name === 'number' && this.current) this.takeDigits(this.current, attributes)
		else if (name === 'map' && this.current) this.current.positive ??= attributes['style:apply-style-name']
		else if (name === 'style') this.takeStyle(attributes)
		else if (name === 'table-properties' && attributes['table:display'] === 'false')
			this.hiddenTables.add(this.tableStyle)
	}

	readonly close = (name: string): void => {
		if (name === 'currency-symbol') this.isSymbol = false
		else if (DATA_STYLE.test(name)) this.current = undefined
	}

	readonly text = (piece: string): void => {
		const sign = piece.trim()
		if (this.isSymbol && this.current && sign !== '') this.current.sign = signOf(sign) || sign
	}

	isHidden(tableStyle: string): boolean {
		return this.hiddenTables.has(tableStyle)
	}

	/** What the style of a cell says of a number in it, its parents asked where it says nothing itself. */
	formatOf(cellStyle: string | undefined): CellFormat {
		const data = this.dataStyleOf(cellStyle)
		switch (data?.kind) {
			case 'currency':
				return data.sign === '' ? PLAIN_NUMBER : { kind: 'money', sign: data.sign }
			case 'percentage':
				return { kind: 'percent' }
			case 'date':
				return { kind: 'date' }
			case 'time':
				return { kind: data.runsOn ? 'span' : 'clock' }
			case 'number':
				if (data.places > 0) return { kind: 'number', places: data.places }
				return data.digits > 1 && !data.isGrouped ? { kind: 'padded', digits: data.digits } : PLAIN_NUMBER
			default:
				return PLAIN_NUMBER
		}
	}

	private dataStyleOf(cellStyle: string | undefined): DataStyle | undefined {
		const seen = new Set<string>()
		let at = cellStyle
		while (at !== undefined && !seen.has(at)) {
			seen.add(at)
			const style = this.cells.get(at)
			if (style?.data !== undefined) return this.positiveOf(style.data)
			at = style?.parent
		}
		return undefined
	}

	/** An accounting format is one of text, with others for what is more, less, or nought. */
	private positiveOf(name: string): DataStyle | undefined {
		const style = this.dataStyles.get(name)
		return style?.kind === 'text' && style.positive !== undefined ? this.dataStyles.get(style.positive) : style
	}

	private takeDigits(style: DataStyle, attributes: Tag['attributes']): void {
		style.digits = Number(attributes['number:min-integer-digits'] ?? 0)
		style.places = Number(attributes['number:min-decimal-places'] ?? attributes['number:decimal-places'] ?? 0)
		style.isGrouped = attributes['number:grouping'] === 'true'
	}

	private takeStyle(attributes: Tag['attributes']): void {
		const name = attributes['style:name'] ?? ''
		if (attributes['style:family'] === 'table') this.tableStyle = name
		if (attributes['style:family'] !== 'table-cell') return
		this.cells.set(name, { data: attributes['style:data-style-name'], parent: attributes['style:parent-style-name'] })
	}
}
