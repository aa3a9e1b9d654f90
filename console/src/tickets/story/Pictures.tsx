import { clock } from '../../shared/time'
import type { Photo, TicketView } from '../../shared/types'

/** Pictures of a ticket, small; each opens whole. Of what is kept no more it is told who let go of it, and why. */
export function Pictures({ ticket, photos }: { ticket: TicketView; photos: readonly Photo[] }) {
  return photos.map(photo =>
    photo.removed ? (
      <p key={photo.id} className="chalk" style={{ margin: 0 }}>
        {nameOf(photo)}: kept no more, {photo.removed.by} on {clock(photo.removed.at, ticket.zone)}. {photo.removed.because}
      </p>
    ) : (
      <a key={photo.id} href={`/api/tickets/${ticket.number}/photos/${photo.id}`}>
        <img
          src={`/api/tickets/${ticket.number}/photos/${photo.id}`}
          alt={`${nameOf(photo)}, by ${photo.by}`}
          style={{ height: 72, marginRight: 8 }}
        />
      </a>
    ),
  )
}

const nameOf = (photo: Photo) => photo.says ?? photo.of ?? photo.step ?? 'Picture'
