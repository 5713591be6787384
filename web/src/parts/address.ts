/** Every variation has an address of its own; the bench alone shows the one that was open last. */
export const addressOf = (id?: string) => (id ? `/v/${id}` : '/')
