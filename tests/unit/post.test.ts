/** Mail as it leaves: what stands in a subject or a name can make no further header (RFC 5322, 2.2). */
import { expect, test } from 'vitest'
import { openPost, type TakenMessage } from '$lib/server/stand-ins/mail.ts'

test('line breaks in a subject or a name add no header and no recipient', async () => {
	const taken: TakenMessage[] = []
	const post = await openPost(async (message) => void taken.push(message))
	await post.send({
		messageId: '<1@varrow.example>',
		to: { name: 'Imke\r\nBcc: hedda@brig.example', email: 'imke.dahl@varrow.example' },
		subject: 'Chain worn\r\nBcc: hedda@brig.example\r\n\r\nAnother body',
		text: 'NH-014'
	})
	await post.close()
	expect(taken).toHaveLength(1)
	expect(taken[0]).toMatchObject({ recipient: 'imke.dahl@varrow.example', body: 'NH-014' })
	expect(taken[0]?.subject).not.toMatch(/[\r\n]/)
})
