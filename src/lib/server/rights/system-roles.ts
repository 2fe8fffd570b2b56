/** Roles that every workspace has from the start, by their numbers. */

/** Held by whoever is signed in. */
export const EVERYONE = 1
/** May make apps and tables. */
export const BUILDER = 2
/** Looks after people and the workspace. */
export const STEWARD = 3
