/** Sent to the window when an answer said that nobody is signed in. */
export const SIGNED_OUT = 'tin-shed-signed-out'
