/** The stand-in for mail, where the operator names no server: it takes messages in and lets nothing out. */
import nodemailer from 'nodemailer'
import PostalMime, { type Email } from 'postal-mime'
import { SMTPServer } from 'smtp-server'
import type { AddressInfo } from 'node:net'
import { sendBy, type Post, type Sender } from '../post/smtp.ts'

export interface TakenMessage {
	readonly messageId: string
	readonly sender: string
	readonly recipient: string
	readonly subject: string
	readonly body: string
	/** Blank where there is none. */
	readonly html: string
	/** What came with it. */
	readonly file: { readonly name: string; readonly mediaType: string; readonly base64: string } | null
}

/**
 * A server on the loopback that takes mail as a real one would, and hands it on as it was read; its port is chosen by
 * the system.
 */
export async function openStandInPost(onTaken: (message: TakenMessage) => Promise<void>, from: Sender): Promise<Post> {
	const server = new SMTPServer({
		authOptional: true,
		disabledCommands: ['AUTH', 'STARTTLS'],
		size: 10 * 1024 * 1024,
		onData(stream, session, done) {
			const chunks: Buffer[] = []
			stream.on('data', (chunk: Buffer) => chunks.push(chunk))
			stream.on('end', () => {
				const recipient = session.envelope.rcptTo[0]?.address ?? ''
				PostalMime.parse(Buffer.concat(chunks))
					.then((mail) =>
						onTaken({
							messageId: mail.messageId ?? '',
							sender: mail.from?.address ?? '',
							recipient,
							subject: mail.subject ?? '',
							body: (mail.text ?? '').trim(),
							html: mail.html ?? '',
							file: fileOf(mail)
						})
					)
					.then(() => done(), done)
			})
		}
	})
	await new Promise<void>((resolve, reject) => {
		server.server.once('error', reject)
		server.listen(0, '127.0.0.1', resolve)
	})
	// A server that listens on a port has one.
	const { port } = server.server.address() as AddressInfo
	const transport = nodemailer.createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true, pool: true })

	return {
		send: (message) => sendBy(transport, message, from),
		close: () => {
			transport.close()
			return new Promise((resolve) => server.close(() => resolve()))
		}
	}
}

/** No message of ours has more than one. */
function fileOf({ attachments: [file] }: Email): TakenMessage['file'] {
	if (!file) return null
	const { filename, mimeType, content } = file
	const bytes = typeof content === 'string' ? Buffer.from(content) : Buffer.from(new Uint8Array(content))
	return { name: filename ?? '', mediaType: mimeType, base64: bytes.toString('base64') }
}
