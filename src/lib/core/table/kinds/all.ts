/** Every type with rules of its own, by name. A new one is one file beside its siblings; the compiler asks for its line here. */
import type { ColumnTypeName } from '../../model/table.ts'
import { choice } from './choice.ts'
import { code } from './code.ts'
import { date } from './date.ts'
import { dateAndTime } from './date-and-time.ts'
import { decimal } from './decimal.ts'
import { duration } from './duration.ts'
import { email } from './email.ts'
import type { ColumnKind } from './kind.ts'
import { file } from './file.ts'
import { ink } from './ink.ts'
import { longText } from './long-text.ts'
import { money } from './money.ts'
import { percent } from './percent.ts'
import { phone } from './phone.ts'
import { photo } from './photo.ts'
import { place } from './place.ts'
import { severalChoices } from './several-choices.ts'
import { signature } from './signature.ts'
import { text } from './text.ts'
import { time } from './time.ts'
import { webAddress } from './web-address.ts'
import { wholeNumber } from './whole-number.ts'
import { yesNo } from './yes-no.ts'

/** The others, references and computed columns, hold values of another's type. */
type RuledType = Exclude<ColumnTypeName, 'reference' | 'computed'>

const KINDS: Readonly<Record<RuledType, ColumnKind>> = {
	text,
	'long text': longText,
	'whole number': wholeNumber,
	decimal,
	money,
	percent,
	'yes/no': yesNo,
	date,
	'date and time': dateAndTime,
	time,
	duration,
	choice,
	'several choices': severalChoices,
	email,
	phone,
	'web address': webAddress,
	code,
	place,
	photo,
	file,
	ink,
	signature
}

/** The type's own rules; undefined for references and computed columns. */
export function findKind(name: ColumnTypeName): ColumnKind | undefined {
	return name === 'reference' || name === 'computed' ? undefined : KINDS[name]
}
