/**
 * The stand-in for mail: a small SMTP server on loopback that takes messages in and lets nothing out, and the sender
 * that any SMTP server could stand behind.
 */
import nodemailer from 'nodemailer'
import PostalMime from 'postal-mime'
import { SMTPServer } from 'smtp-server'
import type { AddressInfo } from 'node:net'

export interface TakenMessage {
	readonly messageId: string
	readonly sender: string
	readonly recipient: string
	readonly subject: string
	readonly body: string
}

export interface Outgoing {
	readonly messageId: string
	readonly to: { readonly name: string; readonly email: string }
	readonly subject: string
	readonly text: string
}

export interface Post {
	send(message: Outgoing): Promise<void>
	close(): Promise<void>
}

/**
 * A server on the loopback that takes mail as a real one would, and hands it on as it was read; its port is chosen by
 * the system.
 */
export async function openPost(onTaken: (message: TakenMessage) => Promise<void>): Promise<Post> {
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
							body: (mail.text ?? '').trim()
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
	const transport = nodemailer.createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true })

	return {
		async send({ messageId, to, subject, text }) {
			await transport.sendMail({
				messageId,
				from: { name: 'Tin Shed', address: 'tin-shed@varrow.example' },
				to: { name: to.name, address: to.email },
				subject,
				text
			})
		},
		close: () => new Promise((resolve) => server.close(() => resolve()))
	}
}
