import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'
import { offered } from '../shared/offered.testing'
import type { Role, RunStep, RunView, TicketView } from '../shared/types'
import type { Writer } from '../tickets'
import { SomethingElse } from './SomethingElse'
import { StepAnswers } from './StepAnswers'

const get = vi.hoisted(() => vi.fn())
vi.mock('../shared/api', async actual => ({ ...(await actual<typeof import('../shared/api')>()), api: { GET: get } }))

const step = (known: Partial<RunStep>): RunStep => ({
  id: 'a',
  kind: 'do',
  chapter: 'One',
  say: 'Do it.',
  answers: [{ answer: 'done', label: 'Done', next: null }],
  erases: false,
  allowsPull: false,
  ...known,
})

/** The answers of one step, with what a press writes. */
function shown(
  known: Partial<RunStep>,
  run: Partial<RunView> = {},
  { reachable = true, roles = ['engineer'] as Role[], door = false } = {},
) {
  const write = vi.fn().mockResolvedValue({})
  const errand = vi.fn().mockResolvedValue({})
  const writer = { write, run: errand, busy: false, problem: null, receipt: undefined, forget: () => {} } as unknown as Writer
  const client = new QueryClient()
  const onlyLead = roles.includes('lead') ? null : 'ilka may not do this; it takes the role lead.'
  const moves = [
    offered('follow-run', 'Go on with the run'),
    offered('decide-step', 'Decide it', { whyNot: onlyLead }),
    offered('overrule-step', 'Overrule a', { whyNot: onlyLead }),
  ]
  const view = { sheet: { id: 'sheet', steps: [] }, since: new Date().toISOString(), unmet: null, visits: [], ...run } as unknown as RunView
  const ticket = { number: 1001, reachable, moves } as unknown as TicketView
  const { unmount } = render(
    <MantineProvider>
      <QueryClientProvider client={client}>
        <MemoryRouter>
          {door ? (
            <SomethingElse ticket={ticket} run={view} step={step(known)} writer={writer} close={() => {}} />
          ) : (
            <StepAnswers ticket={ticket} run={view} step={step(known)} writer={writer} machine={writer} />
          )}
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  )
  return { write, errand, unmount }
}

const button = (name: string) => screen.getByRole('button', { name })

it('a thing to do has one button, and pressing it says done', () => {
  const { write } = shown({})

  fireEvent.click(button('Done'))

  expect(write).toHaveBeenCalledWith({ kind: 'step-answered', sheet: 'sheet', step: 'a', answer: 'done' })
})

it('a look has all its answers side by side, and none is drawn as the expected one', () => {
  const answers = ['yes', 'no', 'unknown'].map(answer => ({ answer, label: answer, next: null }))
  shown({ kind: 'look', answers })

  expect(answers.map(a => button(a.label).getAttribute('data-variant'))).toEqual(['outline', 'outline', 'outline'])
})

it('a scan that has to be read again says why at the field, and a stop leaves nothing to press but a new look', () => {
  const said = [{ step: 'a', answer: 'P8BADD0571', branch: 'ask-again', said: 'Two characters changed places; read it again.' }]
  shown({ kind: 'scan', against: 'drive-out' }, { visits: said } as unknown as Partial<RunView>)
  expect(screen.getByLabelText('Scan, or type the serial').getAttribute('aria-describedby')).toBeTruthy()
  expect(screen.getByText('Two characters changed places; read it again.')).toBeTruthy()
  cleanup()

  shown({}, { stop: 'the array was looked at 45 min ago. Take a snapshot now.' })
  expect(screen.getByRole('alert').textContent).toContain('Stop: the array was looked at 45 min ago.')
  expect(screen.queryByRole('button', { name: 'Done' })).toBeNull()
  expect(button('Take a snapshot')).toBeTruthy()
})

it('a scan takes what a wedge scanner types and sends with Enter', () => {
  const { write } = shown({ kind: 'scan', against: 'drive-out' })
  const field = screen.getByLabelText('Scan, or type the serial')

  fireEvent.change(field, { target: { value: 'S/N: p8badd0517' } })
  fireEvent.submit(field)

  expect(document.activeElement).toBe(field)
  expect(write).toHaveBeenCalledWith({ kind: 'step-answered', sheet: 'sheet', step: 'a', answer: 'S/N: p8badd0517' })
})

it('a gate that is shut says why, and what usually opens it is one press away', () => {
  const { errand } = shown({ kind: 'gate', gate: 'snapshot-before' }, { unmet: 'There is no snapshot since you arrived; take one.' })

  expect(screen.getByText('Not yet: There is no snapshot since you arrived; take one.')).toBeTruthy()
  expect(button('Go on').hasAttribute('disabled')).toBe(true)
  fireEvent.click(button('Take a snapshot'))
  expect(errand).toHaveBeenCalledWith({ errand: 'snapshot' })
})

it('a gate that is open is passed by a decision, not answered', () => {
  const { write } = shown({ kind: 'gate', gate: 'light-off' })

  fireEvent.click(button('Go on'))

  expect(write).toHaveBeenCalledWith({ kind: 'step-passed', sheet: 'sheet', step: 'a' })
})

it('only a lead is offered to overrule a shut gate', () => {
  shown({ kind: 'gate', gate: 'pull-not-fatal' }, { unmet: 'Pulling bay 2 is fatal.' }, { door: true })
  expect(screen.queryByText('Overrule, as a lead')).toBeNull()

  shown({ kind: 'gate', gate: 'pull-not-fatal' }, { unmet: 'Pulling bay 2 is fatal.' }, { roles: ['lead'], door: true })
  expect(screen.getByText('Overrule, as a lead')).toBeTruthy()
})

it('other ways from a gate stand beside it while it is shut, and behind the door when it is open', () => {
  const answers = [
    { answer: 'done', label: 'Done', next: 'b' },
    { answer: 'ask', label: 'Ask the lead', next: 'call' },
  ]
  shown({ kind: 'gate', gate: 'pull-not-fatal', answers }, { unmet: 'Pulling bay 2 is fatal.' })
  expect(button('Ask the lead')).toBeTruthy()
  cleanup()

  shown({ kind: 'gate', gate: 'pull-not-fatal', answers })
  expect(screen.queryByRole('button', { name: 'Ask the lead' })).toBeNull()
  cleanup()
  shown({ kind: 'gate', gate: 'pull-not-fatal', answers }, {}, { door: true })
  expect(button('Ask the lead')).toBeTruthy()
})

it('a label that cannot be read is an answer behind the door, where the drive that came out is read', () => {
  const { write } = shown({ kind: 'scan' }, { mayBeUnreadable: true }, { door: true })

  fireEvent.click(button('The label cannot be read'))

  expect(write).toHaveBeenCalledWith({ kind: 'step-answered', sheet: 'sheet', step: 'a', answer: 'unreadable' })
})

it('a hold counts down from when the run came to it and then opens', () => {
  shown({ kind: 'hold', seconds: 90 }, { since: new Date(Date.now() - 60_000).toISOString(), unmet: 'Wait 30 s more.' })
  expect(screen.getByRole('timer').textContent).toMatch(/^0:(2[89]|3[01])$/)
  expect(button('Go on').hasAttribute('disabled')).toBe(true)
})

it('a hold whose time ran out while the screen was off is open', () => {
  shown({ kind: 'hold', seconds: 90 }, { since: new Date(Date.now() - 100_000).toISOString(), unmet: 'Wait.' })

  expect(screen.queryByRole('timer')).toBeNull()
  expect(button('Go on').hasAttribute('disabled')).toBe(false)
})

it('a light is switched by the service where it reaches the machine, and then said to be done', async () => {
  const { write, errand } = shown({ kind: 'light', records: 'light-on' })

  fireEvent.click(button('Switch it on for me'))

  await vi.waitFor(() => expect(write).toHaveBeenCalledWith({ kind: 'step-answered', sheet: 'sheet', step: 'a', answer: 'done' }))
  expect(errand).toHaveBeenCalledWith({ errand: 'light', on: true })
})

it('a light that no wire reaches is switched by hand', () => {
  shown({ kind: 'light', records: 'light-off' }, {}, { reachable: false })

  expect(screen.queryByText(/for me/)).toBeNull()
  expect(button('I did it by hand')).toBeTruthy()
})

it('what destroys is confirmed by naming bay and serial, and neither is filled in', () => {
  const { write } = shown({ erases: true })
  const [bay, serial] = [screen.getByLabelText('Bay'), screen.getByLabelText('Serial')]
  expect([bay, serial].map(f => (f as HTMLInputElement).value)).toEqual(['', ''])

  fireEvent.change(bay, { target: { value: '2' } })
  fireEvent.change(serial, { target: { value: 'C8NEWW2286' } })
  fireEvent.submit(serial)

  expect(write).toHaveBeenCalledWith({ kind: 'step-answered', sheet: 'sheet', step: 'a', answer: '2 C8NEWW2286' })
})

it('a decision is offered to the role whose it is, and others see whose', () => {
  const answers = ['yes', 'no'].map(answer => ({ answer, label: answer, next: null }))
  shown({ kind: 'look', decides: 'lead', answers })
  expect(screen.getByText(/A lead decides this/)).toBeTruthy()

  const { write } = shown({ kind: 'look', decides: 'lead', answers }, {}, { roles: ['lead'] })
  fireEvent.click(button('no'))
  expect(write).toHaveBeenCalledWith({ kind: 'step-decided', sheet: 'sheet', step: 'a', answer: 'no' })
})

it('a step that says what one should see has one button, and its way out behind the door', () => {
  const known = {
    see: 'A lamp.',
    answers: [
      { answer: 'done', label: 'Done', next: 'b' },
      { answer: 'not-so', label: 'I cannot, or it is different', next: 'stuck' },
    ],
  }
  shown(known)
  expect(button('Done').getAttribute('data-variant')).toBe('filled')
  expect(screen.queryByRole('button', { name: 'I cannot, or it is different' })).toBeNull()
  cleanup()

  const { write } = shown(known, {}, { door: true })
  fireEvent.click(button('I cannot, or it is different'))

  expect(write).toHaveBeenCalledWith({ kind: 'step-answered', sheet: 'sheet', step: 'a', answer: 'not-so' })
})

it('behind the door a recovery is one press, another sheet takes its reason, and what cannot be says why', async () => {
  const other = (procedure: string, known: object) => ({
    procedure,
    title: procedure,
    isRecovery: false,
    wasLeft: false,
    whyNot: null,
    ...known,
  })
  const sheets = [
    other('screen-frozen', { isRecovery: true }),
    other('dropped-but-good', { wasLeft: true }),
    other('front-off', { whyNot: 'the drawer is not put right.' }),
  ]
  get.mockResolvedValue({ data: { sheets }, response: new Response() })
  const { errand } = shown({}, {}, { door: true })
  await screen.findByText('screen-frozen')

  fireEvent.click(button('screen-frozen'))
  expect(errand).toHaveBeenLastCalledWith({ errand: 'sheet', procedure: 'screen-frozen' })
  fireEvent.change(screen.getByLabelText('Why; it stands in the record'), { target: { value: 'Dust' } })
  fireEvent.click(button('dropped-but-good, where it was left'))
  expect(errand).toHaveBeenLastCalledWith({ errand: 'sheet', procedure: 'dropped-but-good', because: 'Dust' })
  expect(screen.getByText('front-off: the drawer is not put right.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'front-off' })).toBeNull()
})

it('where a lead said no to a call that leads nowhere, going on ends the run', () => {
  const { write } = shown({ kind: 'call' }, { endsHere: true })
  fireEvent.click(button('End the run here'))
  expect(write).toHaveBeenCalledWith({ kind: 'step-passed', sheet: 'sheet', step: 'a' })
})

it('a machine that is slow to switch its light holds nobody up, and what it did at last answers no other step', async () => {
  const { write, errand, unmount } = shown({ kind: 'light', records: 'light-on' })
  let switched = (_: object) => {}
  errand.mockReturnValue(new Promise(resolve => (switched = resolve)))

  fireEvent.click(button('Switch it on for me'))
  fireEvent.click(button('I did it by hand'))
  expect(write).toHaveBeenCalledTimes(1)
  unmount() // the run has gone on
  switched({})
  await Promise.resolve()

  expect(write).toHaveBeenCalledTimes(1)
})
