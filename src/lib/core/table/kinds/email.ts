import { textKind } from './texts.ts'

/** What HTML takes as an address (WHATWG HTML 4.10.5.1.5, the production for `type=email`, from memory). */
const ADDRESS =
	/^[\w.!#$%&'*+/=?^`{|}~-]+@[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?)+$/i

export const email = textKind({
	name: 'email',
	max: 254,
	normalize: (value) => (ADDRESS.test(value) ? value : undefined),
	remedy: (value) => `"${value}" is no email address. It needs a name, an @ and a domain, like imke@varrow.example.`
})
