import type { ColumnTypeName } from '../model/table.ts'

const NAMES: readonly (readonly [words: RegExp, type: ColumnTypeName | 'person'])[] = [
	[/\b(photo|photograph|picture|image|snapshot)s?$/i, 'photo'],
	[/\b(signature|signed)$/i, 'signature'],
	[/\b(sketch|drawing)$/i, 'ink'],
	[/\b(attachment|file|document|scan)$/i, 'file'],
	[
		/\b((made|reported|inspected|checked|assigned|approved|signed|raised|taken) (by|to)|inspector|assignee)$/i,
		'person'
	],
	[/e-?mail/i, 'email'],
	[/\b(phone|mobile|tel|telephone|fax)\b/i, 'phone'],
	[/\b(web ?site|web address|url|link|homepage)\b/i, 'web address'],
	[/^(is|has|can|was|needs?|may)\b|\?$|\b(yes.?no|done|active|urgent|approved)$/i, 'yes/no'],
	[/\b(date and time|timestamp|moment|(made|changed|sent|arrived|left|created|updated) at)\b/i, 'date and time'],
	[/\b(date|due|day|birthday|since|until|expires?|expiry|deadline)\b/i, 'date'],
	[/\b(duration|time taken|time spent|hours worked|how long)\b/i, 'duration'],
	[/\b(start|end|opening|closing|arrival|departure)? ?time\b|\bo.?clock\b/i, 'time'],
	[/\b(price|cost|fee|fees|amount|salary|arrears|balance|budget|paid|value)\b/i, 'money'],
	[/\b(percent|percentage|rate|share)\b|%/i, 'percent'],
	[/\b(count|quantity|qty|number of|how many|nights|age|pieces|items)\b/i, 'whole number'],
	[/\b(depth|length|width|height|weight|draught|distance|temperature|area|volume)\b/i, 'decimal'],
	[/\b(location|place|position|coordinates|latitude|longitude|lat.?lon)\b/i, 'place'],
	[/\b(code|sku|barcode|gtin|ean|isbn|serial|tag|reference no\.?)\b/i, 'code'],
	[/\b(notes?|comments?|remarks?|description|details|what happened|reason)\b/i, 'long text']
]

/** The type that a column's name alone speaks of: "due date" is a date, "is urgent" a yes or no; text where it says nothing. */
export function typeFromName(name: string): ColumnTypeName | 'person' {
	return NAMES.find(([words]) => words.test(name.trim()))?.[1] ?? 'text'
}
