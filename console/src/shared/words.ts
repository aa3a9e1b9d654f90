import type { Role } from './types'

export const ticketName = (number: number) => `T-${number}`

/** A word of the interface as people read it: `on-site` is "on site". */
export const said = (word: string) => word.replaceAll('-', ' ')

/** Roles as people read them. */
export const rolesTold = (roles: readonly (Role | null)[]) => roles.map(role => said(role ?? '')).join(', ')

export const mayAct = (roles: readonly (Role | null)[], ...any: Role[]) => any.some(role => roles.includes(role))

/** Labels are decimal and screens often binary, so both are said. */
export const size = (bytes: number) => `${(bytes / 1e12).toFixed(2)} TB (${(bytes / 2 ** 40).toFixed(2)} TiB)`
