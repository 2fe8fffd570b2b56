/** The one password of everybody in the demo. Only a workspace marked as demo, on loopback, offers to do without it. */
export const DEMO_PASSWORD = 'lantern on the quay'
