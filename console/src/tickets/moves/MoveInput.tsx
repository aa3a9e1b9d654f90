import { NativeSelect, Textarea, TextInput } from '@mantine/core'
import { type ChangeEvent, useId } from 'react'
import { usePeople } from '../../people'
import { useSupplies } from '../../shared/supplies'
import type { MoveField } from '../../shared/types'

type Typed = (event: ChangeEvent<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>) => void
type Props = { field: MoveField; value: string; typed: Typed; autoFocus?: boolean }

/** One field of a move, in the form its kind asks for. */
export function MoveInput({ field, value, typed, autoFocus = false }: Props) {
  const said = {
    label: field.label,
    description: field.hint ?? undefined,
    required: field.required,
    withAsterisk: false,
    value,
    onChange: typed,
    autoFocus,
  }
  switch (field.kind) {
    case 'lines':
      return <Textarea {...said} rows={2} maxLength={field.most} />
    case 'ticket':
      if (field.choices?.length) return <NativeSelect {...said} data={field.choices.map(c => ({ value: c.value, label: c.label }))} />
      return <TextInput {...said} pattern="(T-|t-)?[0-9]+" title="A ticket's number, such as T-1042" />
    case 'choice':
    case 'flag':
      return <NativeSelect {...said} data={(field.choices ?? []).map(c => ({ value: c.value, label: c.label }))} />
    case 'person':
      return <PersonInput {...said} except={field.except ?? null} />
    case 'serial':
      return <TextInput {...said} classNames={{ input: 'mono' }} autoCapitalize="characters" autoComplete="off" maxLength={field.most} />
    case 'bytes':
      return <TextInput {...said} inputMode="numeric" pattern="[0-9, ]+" title="Whole bytes, such as 8001563222016" />
    case 'number':
      return <TextInput {...said} inputMode="decimal" pattern="[0-9]+([.,][0-9]+)?" title="A number such as 62 or 62.5" />
    case 'supply':
      return <SupplyInput {...said} most={field.most} />
    case 'day':
      return <TextInput {...said} type="date" />
    case 'time':
      return <TextInput {...said} type="datetime-local" />
    default:
      return <TextInput {...said} maxLength={field.most} />
  }
}

/** What is counted, by the names that stores knows; something else may be said. */
function SupplyInput({ most, ...said }: Said & { most: number }) {
  const supplies = useSupplies()
  const id = useId()
  return (
    <>
      <TextInput {...said} list={id} autoComplete="off" maxLength={most} />
      <datalist id={id}>
        {supplies.data?.map(s => (
          <option key={s.name} value={s.name} />
        ))}
      </datalist>
    </>
  )
}

type Said = { label: string; value: string; onChange: Typed; required: boolean; withAsterisk: boolean; autoFocus: boolean }

/** The people who go to sites, by name; somebody who is no engineer any more still shows. */
function PersonInput({ value, except, ...said }: Said & { except: string | null }) {
  const people = usePeople()
  const engineers = people.data?.people.filter(p => p.roles.includes('engineer') && p.name !== except) ?? []
  const known = engineers.map(p => ({ value: p.name, label: p.fullName }))
  const others = value && !engineers.some(p => p.name === value) ? [{ value, label: value }] : []
  return <NativeSelect {...said} value={value} data={[{ value: '', label: 'nobody yet', disabled: true }, ...known, ...others]} />
}
