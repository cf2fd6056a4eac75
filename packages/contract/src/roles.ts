/** What people may do here. */
export const ROLES = ['coordinator', 'artist', 'lead'] as const;
export type Role = (typeof ROLES)[number];

export const ALL: readonly Role[] = [...ROLES];
export const COORDINATOR = ['coordinator'] as const;
/** Who may see what was done and by whom. */
export const LOOKING = ['coordinator', 'lead'] as const;
export const WORKING = ['coordinator', 'artist'] as const;
