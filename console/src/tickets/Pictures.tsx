import type { Photo, TicketView } from '../shared/types'

/** Pictures of a ticket, small; each opens whole. */
export function Pictures({ ticket, photos }: { ticket: TicketView; photos: readonly Photo[] }) {
  return photos.map(photo => (
    <a key={photo.id} href={`/api/tickets/${ticket.number}/photos/${photo.id}`}>
      <img
        src={`/api/tickets/${ticket.number}/photos/${photo.id}`}
        alt={`${photo.says ?? photo.of ?? photo.step ?? 'Picture'}, by ${photo.by}`}
        style={{ height: 72, marginRight: 8 }}
      />
    </a>
  ))
}
