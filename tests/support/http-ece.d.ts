/** The part of the reference library for RFC 8188 that the tests use. */
declare module 'http_ece' {
	import type { ECDH } from 'node:crypto'
	interface Opening {
		readonly version: 'aes128gcm'
		readonly privateKey: ECDH
		readonly authSecret: Buffer
	}
	const ece: { decrypt(body: Buffer, opening: Opening): Buffer }
	export default ece
}
