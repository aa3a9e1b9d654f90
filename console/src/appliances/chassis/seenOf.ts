import type { ArrayState, BayRole, DriveHealth, SeenByPerson } from '../../shared/types'

// A label may have any character a maker prints, a slash among them, but no line break.
const apart = '\n'

export const bayField = (label: string, what: 'serial' | 'role' | 'health' | 'array') => `bay${apart}${label}${apart}${what}`
export const arrayField = (name: string) => `array${apart}${name}`

/** What was typed, field by field, as what a person sees; what it means for each bay is for the service to say. */
export function seenOf(fields: Record<string, string>): SeenByPerson {
  const bays = new Map<string, Record<string, string>>()
  const arrays: SeenByPerson['arrays'] = []
  for (const [field, value] of Object.entries(fields)) {
    const [of, name = '', what = ''] = field.split(apart)
    if (of === 'array') arrays.push({ name, state: value as ArrayState })
    else bays.set(name, { ...bays.get(name), [what]: value })
  }
  return {
    arrays,
    bays: [...bays].map(([label, said]) => ({
      label,
      serial: said.serial ?? null,
      role: (said.role || null) as BayRole | null,
      health: (said.health || null) as DriveHealth | null,
      array: said.array ?? null,
    })),
  }
}
