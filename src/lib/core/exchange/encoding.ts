/**
 * In what letters a text is written, judged by all of its bytes (RFC 3629 for what is sound UTF-8): one letter of another encoding
 * at the end of a long file makes it no other file than the same letter at its beginning.
 *
 * - A mark at the beginning says it outright.
 * - Where every byte above ASCII belongs to a sound character it is UTF-8; so it is where only few do not, and those are told.
 * - Otherwise it is Windows-1252, of which five bytes stand for nothing.
 */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252'

export interface Judged {
	readonly encoding: Encoding
	/** Bytes that stand for no character there. */
	readonly unread: number
	/** Characters of no value (U+0000), which no cell can hold. */
	readonly nulls: number
}

/** Of so many sound characters one may be broken, and the text is still what it is. */
const SOUND_FOR_ONE_BROKEN = 20
const UNDEFINED_1252: ReadonlySet<number> = new Set([0x81, 0x8d, 0x8f, 0x90, 0x9d])

export class EncodingJudge {
	private mark: Encoding | undefined
	private isFirst = true
	/** What the last piece ended in the middle of: how many bytes are still to come, and how many came. */
	private expected = 0
	private had = 0
	private sound = 0
	private broken = 0
	private odd = 0
	private nulls = 0

	/** Plain ASCII may be passed over: `skip`. */
	add(bytes: Uint8Array): void {
		this.begin(bytes)
		for (const byte of bytes) {
			if (byte === 0) this.nulls++
			if (UNDEFINED_1252.has(byte)) this.odd++
			if (this.expected > 0) {
				if ((byte & 0xc0) === 0x80) {
					this.had++
					if (--this.expected === 0) this.sound++
					continue
				}
				this.breakOff()
			}
			if (byte < 0x80) continue
			this.expected =
				byte >= 0xc2 && byte < 0xe0 ? 1 : byte >= 0xe0 && byte < 0xf0 ? 2 : byte >= 0xf0 && byte < 0xf5 ? 3 : 0
			this.had = 1
			if (this.expected === 0) this.broken++
		}
	}

	/** A piece of nothing but ASCII, without characters of no value. */
	skip(): void {
		this.isFirst = false
		if (this.expected > 0) this.breakOff()
	}

	judge(): Judged {
		if (this.expected > 0) this.breakOff()
		const { mark, sound, broken, odd, nulls } = this
		if (mark === 'utf-16le' || mark === 'utf-16be') return { encoding: mark, unread: 0, nulls: 0 }
		const isUtf8 = mark === 'utf-8' || broken === 0 || sound >= broken * SOUND_FOR_ONE_BROKEN
		return isUtf8 ? { encoding: 'utf-8', unread: broken, nulls } : { encoding: 'windows-1252', unread: odd, nulls }
	}

	private begin(bytes: Uint8Array): void {
		if (!this.isFirst) return
		this.isFirst = false
		if (bytes[0] === 0xff && bytes[1] === 0xfe) this.mark = 'utf-16le'
		else if (bytes[0] === 0xfe && bytes[1] === 0xff) this.mark = 'utf-16be'
		else if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) this.mark = 'utf-8'
	}

	private breakOff(): void {
		this.broken += this.had
		this.expected = 0
	}
}

/** The same of bytes that are all at hand. */
export function judgeEncoding(bytes: Uint8Array): Judged {
	const judge = new EncodingJudge()
	judge.add(bytes)
	return judge.judge()
}
