/** Every variation has an address of its own; the bench alone shows the one that was open last. */
export const addressOf = (id?: string) => (id ? `/v/${id}` : '/')
/** A bowl that is being made. */
export const sheetOf = (id: string) => `/sheet/${id}`
