import type { components } from '../shared/schema'
import type { Snapshot } from '../shared/types'

/** What one starts from where nothing was recorded yet: the model's bays, empty, and the arrays as they were set up. */
export function bareSnapshot({ appliance, model }: components['schemas']['ApplianceView']): Snapshot {
  return {
    takenAt: new Date(0).toISOString(),
    source: 'person',
    bays: Array.from({ length: model.rows * model.columns }, (_, i) => ({
      label: String(i + 1),
      role: 'empty' as const,
      health: 'unknown' as const,
    })),
    arrays: (appliance.arrays ?? []).map(a => ({
      name: a.name,
      level: a.level,
      designMembers: a.members,
      state: 'whole' as const,
      memberBytes: a.memberBytes ?? null,
    })),
  }
}
