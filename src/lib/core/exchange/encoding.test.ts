import { expect, test } from 'vitest'
import { EncodingJudge, judgeEncoding } from './encoding.ts'

const utf8 = (text: string) => [...new TextEncoder().encode(text)]
const LONG = 'Ärmelkanal, Ölhafen, Überfahrt, Ñandú, 港; '.repeat(30)

const cases: [what: string, bytes: number[], encoding: string, unread: number, nulls?: number][] = [
	['plain', utf8('a,b\n1,2'), 'utf-8', 0],
	['sound', utf8('Käpt’n, 港, 🚢'), 'utf-8', 0],
	['Windows-1252', [0x4b, 0xe4, 0x70, 0x74], 'windows-1252', 0],
	['one letter of it at the very end of much ASCII', [...utf8('a'.repeat(9_000)), 0xe4], 'windows-1252', 0],
	['a byte that stands for nothing there', [0xe4, 0x41, 0x81], 'windows-1252', 1],
	['UTF-8 with one broken byte', [...utf8(LONG), 0xff, ...utf8('b')], 'utf-8', 1],
	['UTF-8 that is cut in a letter', [...utf8(LONG), 0xc3], 'utf-8', 1],
	['a mark outranks what follows', [0xef, 0xbb, 0xbf, 0x41, 0xe4, 0x42], 'utf-8', 1],
	['UTF-16', [0xff, 0xfe, 0x41, 0x00], 'utf-16le', 0],
	['UTF-16 the other way', [0xfe, 0xff, 0x00, 0x41], 'utf-16be', 0],
	['letters too long for what they say (RFC 3629, 3)', [0xc0, 0xaf, 0x41], 'windows-1252', 0],
	['characters of no value', utf8('a\u0000b\u0000'), 'utf-8', 0, 2]
]

test.each(cases)('%s', (_what, bytes, encoding, unread, nulls = 0) => {
	expect(judgeEncoding(Uint8Array.from(bytes))).toEqual({ encoding, unread, nulls })
})

test.each(cases)('%s, in pieces of every length', (_what, bytes, encoding, unread, nulls = 0) => {
	for (const length of [1, 2, 3, 5, 7]) {
		const judge = new EncodingJudge()
		// The mark stands in one piece with what follows: pieces of a file are long.
		const first = Math.max(3, length)
		judge.add(Uint8Array.from(bytes.slice(0, first)))
		for (let at = first; at < bytes.length; at += length) {
			const piece = bytes.slice(at, at + length)
			if (piece.every((byte) => byte > 0 && byte < 0x80)) judge.skip()
			else judge.add(Uint8Array.from(piece))
		}
		expect(judge.judge()).toEqual({ encoding, unread, nulls })
	}
})
