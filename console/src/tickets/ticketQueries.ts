import { queryOptions, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { api, clockNow, sendPhoto, unwrap } from '../shared/api'
import { isBehind } from '../shared/live/live'
import { answered, forErrands, forWriting, isAnswer, keyOf, pressed } from '../shared/typed/presses'
import type { EntryBody, Receipt, RunSheet, SeenByPerson, TicketView } from '../shared/types'
import { queryOf, type TicketFilter } from './list/ticketFilter'

export const ticketQuery = (number: number) =>
  queryOptions({
    queryKey: ['tickets', number],
    queryFn: async ({ signal, client }) => {
      const sheet = client.getQueryData<TicketView>(['tickets', number])?.run?.sheet
      const query = sheet ? { haveSheet: sheet.id } : {}
      return withSteps(unwrap(await api.GET('/api/tickets/{number}', { params: { path: { number }, query }, signal })), sheet)
    },
    refetchInterval: 15_000, // a wait or a "no news" comes with time alone, which the live stream does not tell
  })
/** A sheet never changes once it is made, and may have hundreds of steps: they are fetched once, not after every answer. */
export const withSteps = (ticket: TicketView, sheet: RunSheet | undefined): TicketView =>
  ticket.run && sheet && ticket.run.sheet.id === sheet.id ? { ...ticket, run: { ...ticket.run, sheet } } : ticket

export const useTicket = (number: number) => useQuery(ticketQuery(number))

/** A ticket's number as people write it, T-1042 or 1042; null for anything else. */
export function ticketNumber(text: string | undefined): number | null {
  const digits = /^(?:T-)?([1-9][0-9]{0,14})$/i.exec(text ?? '')?.[1]
  return digits ? Number(digits) : null
}

export function useTicketNumber(): number {
  return ticketNumber(useParams().number) ?? Number.NaN // pages of a ticket lie below TicketRoute, which lets no other through
}

/** Everything open, by whose turn it is; of each turn so many, the worst first. */
export const useWaiting = (most: number) =>
  useQuery({
    queryKey: ['tickets', 'list', 'waiting', most],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/tickets/waiting', { params: { query: { most } }, signal })).groups,
    placeholderData: earlier => earlier,
  })

/** Tickets that are asked for by what is in the address, a page at a time. */
export const useFoundTickets = (filter: TicketFilter) =>
  useInfiniteQuery({
    queryKey: ['tickets', 'list', 'found', filter],
    initialPageParam: null as number | null,
    queryFn: async ({ signal, pageParam }) => {
      const newestFirst = !filter.order || filter.order === 'newest'
      const from = pageParam === null ? {} : newestFirst ? { before: pageParam } : { skip: pageParam }
      return unwrap(await api.GET('/api/tickets', { params: { query: { ...queryOf(filter), ...from, limit: 50 } }, signal }))
    },
    getNextPageParam: page => page.next ?? undefined,
    placeholderData: earlier => earlier,
  })

export const useJournal = (number: number) =>
  useInfiniteQuery({
    queryKey: ['tickets', number, 'journal'],
    initialPageParam: 0,
    queryFn: async ({ signal, pageParam }) =>
      unwrap(await api.GET('/api/tickets/{number}/journal', { params: { path: { number }, query: { after: pageParam } }, signal })),
    getNextPageParam: page => page.next ?? undefined,
  })

/** The ways in which one entry may be put right. */
export const useCorrections = (number: number, seq: number) =>
  useQuery({
    queryKey: ['tickets', number, 'corrections', seq],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/tickets/{number}/entries/{seq}/moves', { params: { path: { number, seq } }, signal })).moves,
  })

type Kind = NonNullable<EntryBody['kind']>
/** An entry's body by its kind, with the kind said. */
export type Body = { [K in Kind]: Extract<EntryBody, { kind?: K }> & { kind: K } }[Kind]

/** What the service does at the machine for whoever stands before it. */
export type Errand =
  | { errand: 'snapshot' }
  | { errand: 'seen'; seen: SeenByPerson }
  | { errand: 'reading' }
  | { errand: 'light'; on: boolean }
  | { errand: 'sheet'; procedure?: string | null; because?: string }
  | { errand: 'photo'; picture: Blob; step?: string; of?: string }

type Writing = { id: string; at: string } & ({ body: Body } | Errand)

async function send(number: number, writing: Writing): Promise<Receipt> {
  const params = { path: { number } }
  const asked = { path: { number }, query: { id: writing.id } }
  if ('body' in writing)
    return unwrap(
      await api.POST('/api/tickets/{number}/entries', {
        params,
        body: { body: writing.body, id: writing.id, at: writing.at, ...clockNow() },
      }),
    )
  switch (writing.errand) {
    case 'snapshot':
      return unwrap(await api.POST('/api/tickets/{number}/snapshots', { params: asked }))
    case 'seen':
      return unwrap(await api.POST('/api/tickets/{number}/snapshots/seen', { params: asked, body: writing.seen }))
    case 'reading':
      return unwrap(await api.POST('/api/tickets/{number}/readings', { params: asked }))
    case 'light':
      return unwrap(await api.POST('/api/tickets/{number}/light', { params: asked, body: { on: writing.on } }))
    case 'sheet':
      return unwrap(
        await api.POST('/api/tickets/{number}/sheet', {
          params: asked,
          body: { procedure: writing.procedure ?? null, because: writing.because ?? null },
        }),
      )
    case 'photo':
      return sendPhoto(number, writing.id, writing)
  }
}

/** A press is for one thing on one ticket; a picture is known by its size, since two that somebody takes never have the same. */
const keyOfWriting = (number: number, what: { body: Body } | Errand, at?: string): string =>
  'errand' in what && what.errand === 'photo' ? keyOf(number, 'photo', what.step, what.of, what.picture.size) : keyOf(number, what, at)

/** Sends a press until it is answered; pressed again meanwhile, or after a reload, it is the same one. */
async function sendPressed(number: number, writing: Writing): Promise<Receipt> {
  try {
    const receipt = await send(number, writing)
    answered(writing.id)
    return receipt
  } catch (problem) {
    if (isAnswer(problem)) answered(writing.id)
    throw problem
  }
}

/** Writes on a ticket. The id is made when the person presses, so that a repeat after a broken connection counts once. */
export function useWrite(number: number) {
  const client = useQueryClient()
  const mutation = useMutation({
    mutationKey: ['tickets', number], // while one is under way the live stream need not ask: this asks when it is over
    mutationFn: (writing: Writing) => sendPressed(number, writing),
    onSettled: async () => {
      const queryKey = ['tickets', number]
      await client.invalidateQueries({ queryKey })
      if (isBehind(client, number)) await client.invalidateQueries({ queryKey }) // somebody else wrote while this was fetched
    },
  })
  const made = (what: { body: Body } | Errand, at?: string): Writing => ({
    ...pressed(keyOfWriting(number, what, at), 'errand' in what && what.errand !== 'sheet' ? forErrands : forWriting),
    ...what,
    ...(at ? { at } : {}),
  })
  return {
    /** What was answered on paper happened when the paper says. */
    write: (body: Body, at?: string) => mutation.mutateAsync(made({ body }, at)).catch(() => undefined),
    run: (errand: Errand) => mutation.mutateAsync(made(errand)).catch(() => undefined),
    receipt: mutation.data,
    problem: mutation.error,
    busy: mutation.isPending,
    forget: mutation.reset,
  }
}
export type Writer = ReturnType<typeof useWrite>
