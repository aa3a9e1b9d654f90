import { Checkbox } from '@mantine/core'
import type { Role } from '../shared/types'

// A role that is new here is missed by the compiler, and not by whoever looks for it.
export const allRoles = Object.keys({
  engineer: 0,
  dispatcher: 0,
  stores: 0,
  lead: 0,
  admin: 0,
} satisfies Record<Role, number>) as Role[]

/** Those of all roles that are among these, in the usual order. */
export const chosen = (roles: readonly (Role | null)[]) => allRoles.filter(role => roles.includes(role))

/** Which roles, of those there are to choose from. */
export function RoleBoxes({
  label,
  of = allRoles,
  roles,
  onChange,
}: {
  label: string
  of?: readonly Role[]
  roles: readonly Role[]
  onChange: (roles: Role[]) => void
}) {
  return (
    <Checkbox.Group size="md" label={label} value={[...roles]} onChange={chosen => onChange(of.filter(role => chosen.includes(role)))}>
      <div className="row" style={{ marginTop: 4 }}>
        {of.map(role => (
          <Checkbox key={role} value={role} label={role} />
        ))}
      </div>
    </Checkbox.Group>
  )
}
