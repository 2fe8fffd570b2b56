/** How long a column or a table that was taken out can be put back. */
export const RETENTION_MS = 30 * 86_400_000
