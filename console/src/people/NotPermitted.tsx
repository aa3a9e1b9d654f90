import type { Permission } from '../shared/types'
import { said } from '../shared/words'
import { useMe } from './peopleQueries'

/** Whether whoever is in may do something beside tickets; the service says so. */
export const useMay = (permission: Permission): boolean => useMe().data?.may?.includes(permission) ?? false

/** Stands where the buttons would, and says who can. */
export function NotPermitted({ permission }: { permission: Permission }) {
  const takes = useMe().data?.withheld?.find(w => w.permission === permission)?.takes ?? []
  return (
    <p className="chalk" style={{ margin: 0 }}>
      To {said(permission)} takes another role than yours{takes.length > 0 && `: ${takes.map(role => said(role ?? '')).join(' or ')}`}.
    </p>
  )
}
