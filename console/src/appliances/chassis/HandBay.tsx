import { NativeSelect, TextInput } from '@mantine/core'
import type { useDraft } from '../../shared/typed/useDraft'
import type { ArrayState, Bay, BayRole, DriveArray, DriveHealth } from '../../shared/types'
import { arrayField, bayField } from './seenOf'

const roles: BayRole[] = ['member', 'filling', 'spare', 'dropped', 'unclaimed', 'foreign', 'empty', 'not-known']
const healths: DriveHealth[] = ['good', 'worn', 'faulted', 'unknown']
const states: ArrayState[] = ['whole', 'degraded', 'rebuilding', 'failed']

type Draft = ReturnType<typeof useDraft<Record<string, string>>>

export function HandArray({ array, draft }: { array: DriveArray; draft: Draft }) {
  const field = arrayField(array.name)
  return (
    <NativeSelect
      label={`Array ${array.name} (${array.level}) is`}
      data={states}
      value={draft.fields[field] ?? array.state}
      onChange={draft.typed(field)}
    />
  )
}

/** One bay: as last recorded, until somebody says what they see there. */
export function HandBay({ bay, arrays, draft }: { bay: Bay; arrays: readonly string[]; draft: Draft }) {
  const said = (what: 'serial' | 'role' | 'health' | 'array') => draft.fields[bayField(bay.label, what)]
  const typed = (what: 'serial' | 'role' | 'health' | 'array') => draft.typed(bayField(bay.label, what))
  const isOther = said('serial') !== undefined && said('serial') !== (bay.serial ?? '')
  // Of another drive nothing is known until it is said; what it is then is not decided here.
  const unsaid = isOther ? [{ value: '', label: 'not said' }] : []
  return (
    <fieldset className="panel hand-bay">
      <legend>
        Bay <b className="mono">{bay.label}</b> {bay.name && <span className="chalk mono">{bay.name}</span>}
      </legend>
      <TextInput
        aria-label={`Serial in bay ${bay.label}`}
        placeholder="serial"
        classNames={{ input: 'mono' }}
        value={said('serial') ?? bay.serial ?? ''}
        onChange={typed('serial')}
      />
      <NativeSelect
        aria-label={`Role of bay ${bay.label}`}
        data={[...unsaid, ...roles]}
        value={said('role') ?? (isOther ? '' : bay.role)}
        onChange={typed('role')}
      />
      <NativeSelect
        aria-label={`Health of the drive in bay ${bay.label}`}
        data={[...unsaid, ...healths]}
        value={said('health') ?? (isOther ? '' : (bay.health ?? 'unknown'))}
        onChange={typed('health')}
      />
      <NativeSelect
        aria-label={`Array of bay ${bay.label}`}
        data={[{ value: '', label: 'no array' }, ...arrays]}
        value={said('array') ?? bay.array ?? ''}
        onChange={typed('array')}
      />
    </fieldset>
  )
}
