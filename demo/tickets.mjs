// Opens the demo's many tickets through the interface, as the people of Fenwright would have: node demo/tickets.mjs URL
// What each machine holds comes from drives.csv and reference.json; which ticket is how far is in `stories` below.
import { readFileSync } from 'node:fs'

const service = process.argv[2]
const here = new URL('.', import.meta.url)
const reference = JSON.parse(readFileSync(new URL('reference.json', here)))
const lines = file => readFileSync(new URL(file, here), 'utf8').trim().split('\n').slice(1)
const drives = lines('drives.csv').map(l => l.split(',')).map(([serial, model, bytes, asset, bay]) => ({ serial, model, bytes: Number(bytes), asset, bay }))
const stock = lines('stock.csv').map(l => l.split(';')).map(([serial, model, bytes, depot, , usedIn]) => ({ serial, model, bytes: Number(bytes), depot, usedIn }))
const hours = n => new Date(Date.now() - n * 3_600_000).toISOString()

const tokens = {}
async function call(person, method, path, body) {
  tokens[person] ??= (await (await fetch(`${service}/api/sign-in`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ name: person, password: 'fenwright-demo' }) })).json()).accessToken
  const answer = await fetch(service + path, { method, headers: { 'content-type': 'application/json', authorization: `Bearer ${tokens[person]}` }, body: body && JSON.stringify(body) })
  if (!answer.ok) throw new Error(`${person} ${method} ${path}: ${answer.status} ${(await answer.json().catch(() => ({}))).detail ?? ''}`)
  return answer.status === 204 ? null : answer.json()
}
const write = (person, ticket, ago, body) => call(person, 'POST', `/api/tickets/${ticket}/entries`, { body, at: hours(ago) })

/** The bays of a machine by the list, with some not as they should be: { 3: { role: 'dropped', health: 'faulted' } }. */
function snapshot(appliance, changes, states = {}) {
  const mine = drives.filter(d => d.asset === appliance.asset)
  const array = (() => {
    let left = [...appliance.arrays], used = 0
    return () => {
      if (used === left[0].members) [left, used] = [left.slice(1), 0]
      used++
      return left[0]
    }
  })()
  const bays = mine.map(d => ({ label: d.bay, role: 'member', health: 'good', serial: d.serial, model: d.model, bytes: d.bytes, array: array().name, name: `sd${d.bay}`, ...changes[d.bay] }))
  return {
    takenAt: hours(0), source: 'person', bays,
    arrays: appliance.arrays.map(a => ({ name: a.name, level: a.level, designMembers: a.members, memberBytes: a.memberBytes, groups: a.groups ?? null, parity: a.parity ?? null, state: states[a.name] ?? (bays.some(b => b.array === a.name && b.role !== 'member') ? 'degraded' : 'whole') })),
  }
}

const dropped = { role: 'dropped', health: 'faulted' }
// asset, how long ago in hours, how far, and what is special about it
const stories = [
  ['FSC-0400', 30, 'planned', { stranger: 'CDR0STRANGER1' }], ['FSC-0401', 3, 'received', { evidence: 12 }], ['FSC-0402', 26, 'on-site', { off: 'Switched off on Sunday to keep it safe.' }], ['FSC-0403', 70, 'rebuilding', { percent: 41.5 }],
  ['FSC-0404', 50, 'planned', { early: true, other: true }], ['FSC-0405', 2, 'received', {}], ['FSC-0406', 90, 'closed', {}], ['FSC-0407', 6, 'planned', { worn: true }],
  ['FSC-0408', 20, 'received', { blind: true }], ['FSC-0409', 140, 'closed', {}], ['FSC-0410', 9, 'on-site', { until: 'new-seen', dead: true }], ['FSC-0411', 5, 'received', { lost: true }],
  ['FSC-0412', 44, 'rebuilding', { percent: 8 }], ['FSC-0413', 12, 'on-site', { until: 'serial-out', wrong: true }], ['FSC-0414', 33, 'hold', { waitsFor: 'customer', why: 'The ice core team measures until Friday; nobody may open the rack.' }],
  ['FSC-0415', 60, 'returning', {}], ['FSC-0416', 4, 'received', { evidence: 41 }], ['FSC-0417', 200, 'closed', {}], ['FSC-0418', 15, 'on-site', { noAccess: 'Ring the caretaker a day before; the hatch is under his desk.' }], ['FSC-0419', 28, 'growth', {}],
  ['FSC-0420', 7, 'received', { early: true }], ['FSC-0421', 80, 'cancelled', { why: 'The customer swapped it themselves and sent a photo of the label.' }], ['FSC-0422', 36, 'planned', {}], ['FSC-0423', 18, 'received', { two: true }],
  ['FSC-0424', 52, 'rebuilding', { percent: 77 }], ['FSC-0425', 11, 'hold', { waitsFor: 'part', why: 'No part in the North depot fits.' }], ['FSC-0426', 22, 'planned', {}], ['FSC-0427', 300, 'closed', {}],
  ['FSC-0428', 3, 'received', {}], ['FSC-0429', 40, 'escalated', { why: 'The chassis blinks, but its sticker says another serial.' }], ['FSC-0430', 16, 'planned', { early: true }], ['FSC-0431', 55, 'returning', {}],
  ['FSC-0432', 1, 'received', {}], ['FSC-0433', 27, 'hold', { waitsFor: 'access', why: 'The pass is closed: avalanche danger four.' }], ['FSC-0434', 8, 'planned', {}], ['FSC-0435', 66, 'rebuilding', { percent: null }],
  ['FSC-0400', 400, 'closed', { bay: 3 }], ['FSC-0402', 500, 'closed', { bay: 5 }], ['FSC-0403', 650, 'closed', { bay: 2 }], ['FSC-0406', 14, 'received', { bay: 4 }], ['FSC-0407', 700, 'cancelled', { bay: 2, why: 'The alarm was low space, not a drive.' }],
  ['FSC-0409', 10, 'planned', { bay: 6 }], ['FSC-0412', 900, 'closed', { bay: 3 }], ['FSC-0415', 1000, 'closed', { bay: 4 }], ['FSC-0417', 5, 'received', { bay: 2 }], ['FSC-0418', 720, 'closed', { bay: 1 }], ['FSC-0422', 800, 'cancelled', { bay: 4, why: 'Reported twice.' }],
  ['FSC-0424', 560, 'closed', { bay: 2 }], ['FSC-0427', 6, 'planned', { bay: 3 }], ['FSC-0430', 450, 'closed', { bay: 2 }], ['FSC-0434', 620, 'closed', { bay: 3 }], ['FSC-0203', 13, 'received', { bay: 7, early: true, bare: true }], ['FSC-0311', 2, 'received', { bay: 2, bare: true }],
  ['FSC-0413', 350, 'handed-over', { bay: 2, why: 'The customer takes the machine out of service on the first of the month.' }],
]
/** Follows a run sheet as an engineer would have, with the times it took; ends where it stands at a step, or at its end. */
async function follow(engineer, ticket, began, { appliance, bad, part, look }, until) {
  let ago = began
  const later = minutes => { ago -= minutes / 60 }
  await call(engineer, 'POST', `/api/tickets/${ticket}/sheet`, { procedure: null, at: hours(ago) })
  const array = appliance.arrays[0].name
  // Every fourth engineer answers a mark wrongly at first, and looks again.
  let unsure = nth % 4 === 0
  for (let steps = 0; steps < 120; steps++) {
    const { run } = await call(engineer, 'GET', `/api/tickets/${ticket}`)
    const step = run.current
    if (!step || step.id === until) return ago
    later(step.kind === 'hold' ? step.seconds / 60 + 0.1 : run.limits.length > 0 ? 0.2 : { call: 20, scan: 1, read: 2, light: 1 }[step.kind] ?? 1 + ((nth + steps) % 3))
    const say = body => write(engineer, ticket, ago, { sheet: run.sheet.id, step: step.id, ...body })
    const seen = (role, states) => write(engineer, ticket, ago, { kind: 'snapshot-taken', snapshot: snapshot(appliance, look(role), states) })
    if (step.kind === 'gate') {
      if (step.gate === 'snapshot-before') await seen(null)
      if (step.gate === 'new-drive-seen') await seen('filling', { [array]: 'rebuilding' })
      if (step.gate === 'rebuild-seen') await write(engineer, ticket, ago, { kind: 'reading-taken', array, progress: 'running', phase: 'rebuilding', percent: 1, source: 'person' })
      if (step.gate === 'drive-joined' || step.gate === 'all-new-good') {
        later(60 * (9 + (nth % 5)))
        await write(engineer, ticket, ago, { kind: 'reading-taken', array, progress: 'done', phase: 'rebuilding', percent: null, source: 'person' })
        await seen('member')
      }
      if (step.gate === 'bay-established' && run.unmet) {
        await say({ kind: 'step-answered', answer: 'look-again' })
        continue
      }
      await say({ kind: 'step-passed' })
    } else if (step.kind === 'hold') await say({ kind: 'step-passed' })
    else if (step.kind === 'scan') await say({ kind: 'step-answered', answer: run.expected })
    else if (step.erases) await say({ kind: 'step-answered', answer: `${bad.bay} ${run.expected}` })
    else if (step.kind === 'read') await say({ kind: 'step-answered', answer: 'Each night to the second site, says the keeper on duty' })
    else if (step.kind === 'look') {
      const no = step.id === 'spare-near' || step.id === 'mark-count' || (unsure && /^mark-(lamp|label|plug)/.test(step.id))
      if (unsure && step.id === 'mark-count') unsure = false
      await say({ kind: 'step-answered', answer: no ? 'no' : 'yes' })
    } else await say({ kind: 'step-answered', answer: 'done' })
  }
  throw new Error(`T-${ticket} never came to ${until ?? 'its end'}`)
}

/** Up to a bad moment, and no further. */
async function offThePath(special, engineer, ticket, began, known) {
  const ago = await follow(engineer, ticket, began, known, special.until)
  const { run } = await call(engineer, 'GET', `/api/tickets/${ticket}`)
  const say = answer => write(engineer, ticket, ago - 0.02, { kind: 'step-answered', sheet: run.sheet.id, step: run.current.id, answer })
  if (special.dead) await write(engineer, ticket, ago - 0.05, { kind: 'snapshot-taken', snapshot: snapshot(known.appliance, known.look('gone')) })
  if (special.wrong) await say(known.beside.serial)
}

/** Larger drives, one by one, that rests until they have all come. */
async function growth(appliance, mine, engineer, ago) {
  const { ticket } = await call('dorrik', 'POST', '/api/tickets', { asset: appliance.asset, symptom: 'The readers want more space', job: 'growth', at: hours(ago) })
  await write('dorrik', ticket, ago - 0.3, { kind: 'snapshot-taken', snapshot: snapshot(appliance, {}) })
  await write('dorrik', ticket, ago - 0.5, { kind: 'engineer-assigned', engineer })
  await write('lioth', ticket, ago - 0.6, { kind: 'drives-chosen', serials: mine.slice(0, appliance.arrays[0].members).map(d => d.serial) })
  await write('dorrik', ticket, ago - 1, { kind: 'put-on-hold', reason: 'The larger drives come in two boxes', waitsFor: 'part', until: hours(-480) })
}

const engineers = ['ilka', 'tamsel', 'brannoc', 'wenna']
const symptoms = ['Amber lamp on bay BAY', 'Console: a drive is missing from ARRAY', 'Mail from the machine: ARRAY is degraded', 'Beeper since the morning, bay BAY is dark', 'The log counts read errors on bay BAY']

let nth = 0
// The oldest first, as they would have come in.
for (const [asset, ago, stage, special] of [...stories].sort((a, b) => b[1] - a[1])) {
  const appliance = reference.appliances.find(a => a.asset === asset)
  const mine = drives.filter(d => d.asset === asset)
  const engineer = engineers[nth % engineers.length]
  const bad = special.bare ? { bay: String(special.bay) } : mine[(special.bay ?? (nth % 4) + 1) % mine.length]
  if (stage === 'growth') { nth++; await growth(appliance, mine, engineer, ago); continue }
  const early = special.early === true
  const changes = special.bare ? {} : { [bad.bay]: early ? { health: 'worn', signs: ['spare blocks nearly used up'] } : dropped }
  if (special.other) changes[mine[mine.indexOf(bad) + 2].bay] = dropped // it is noticed when somebody looks
  if (special.stranger) changes[mine.at(-1).bay] = { serial: special.stranger } // and nobody recorded that
  if (special.worn) changes[mine[(nth + 2) % mine.length].bay] ??= { health: 'worn', signs: ['38 reallocated sectors, rising'] }
  if (special.lost || special.two) changes[mine[mine.indexOf(bad) + 1].bay] = dropped
  const array = appliance.arrays[0].name
  const symptom = symptoms[nth % symptoms.length].replace('BAY', bad.bay).replace('ARRAY', array)
  const report = await call('dorrik', 'POST', '/api/tickets', { asset, symptom: early ? `Bay ${bad.bay} warns: spare blocks nearly used up` : symptom, job: early ? 'early' : 'fault', bay: bad.bay, serial: bad.serial ?? null, since: hours(ago + 2), at: hours(ago) })
  const ticket = report.ticket
  nth++
  if (special.evidence) await write('dorrik', ticket, ago - 0.2, { kind: 'evidence-seen', evidence: 'log-lines', source: 'console', text: 'medium error', bay: special.bare ? null : mine[(mine.indexOf(bad) + 2) % mine.length].bay, count: special.evidence })
  if (special.blind || special.bare) continue
  await write('dorrik', ticket, ago - 0.3, { kind: 'snapshot-taken', snapshot: snapshot(appliance, changes, special.lost ? { [array]: 'failed' } : {}) })
  if (stage === 'received') continue
  if (stage === 'cancelled') { await write('dorrik', ticket, ago - 2, { kind: 'ticket-cancelled', reason: special.why }); continue }
  await write('dorrik', ticket, ago - 0.5, { kind: 'engineer-assigned', engineer })
  if (stage === 'hold') { await write('dorrik', ticket, ago - 1, { kind: 'put-on-hold', reason: special.why, waitsFor: special.waitsFor }); continue }
  const fits = (await call('sefa', 'GET', `/api/tickets/${ticket}/bring`)).parts.filter(p => p.fit === 'fits' || p.fit === 'fits-with-warnings')
  const part = fits[0]?.part ?? { serial: `NEW${String(nth).padStart(3, '0')}${bad.serial.slice(-5)}`, model: bad.model, bytes: bad.bytes, depot: 'Fenwright main stores' }
  const visit = { kind: 'visit-planned', from: hours(stage === 'planned' ? -(4 + nth % 30) : ago - 5), to: hours(stage === 'planned' ? -(6 + nth % 30) : ago - 7) }
  await write('dorrik', ticket, ago - 0.6, visit)
  if (stage === 'planned' && nth % 3 === 0) continue // stores have not looked at it yet
  await write('sefa', ticket, ago - 1, { kind: 'part-reserved', serial: part.serial, model: part.model, bytes: part.bytes, depot: part.depot, overruledBecause: fits[0]?.fit === 'fits-with-warnings' ? 'The qualified one is two days away, and the margin is thin.' : null })
  await write('sefa', ticket, ago - 2, { kind: 'part-issued', serial: part.serial, to: engineer })
  if (stage === 'planned') continue
  await write(engineer, ticket, ago - 5, { kind: 'arrived-on-site' })
  if (special.off) await write(engineer, ticket, ago - 5.1, { kind: 'power-told', change: 'found-off', allowedBy: 'the keeper on duty', because: special.off })
  if (special.noAccess) await write(engineer, ticket, ago - 5.3, { kind: 'left-site', ended: 'no-access', learnt: special.noAccess })
  if (special.until) await offThePath(special, engineer, ticket, ago - 5, { appliance, bad, part, look: role => (role ? { [bad.bay]: { serial: null, role: 'empty', health: 'unknown', array: null } } : changes), beside: mine[mine.indexOf(bad) + 1] })
  if (stage === 'escalated') { await write(engineer, ticket, ago - 5.2, { kind: 'help-called', reason: special.why }); continue }
  if (stage === 'on-site') continue
  if (stage === 'handed-over') {
    await call('sefa', 'POST', `/api/tickets/${ticket}/entries`, { body: { kind: 'return-opened', serial: part.serial, to: { kind: 'depot', name: part.depot }, reason: 'back-to-stores' } })
    continue
  }
  const filled = role => ({ [bad.bay]: { serial: part.serial, model: part.model, bytes: part.bytes, role, health: 'good', signs: null } })
  const bare = appliance.arrays[0].level === 'raid0' // nothing rebuilds there: it was set up anew and restored
  if (bare) {
    await write(engineer, ticket, ago - 5.5, { kind: 'drive-pulled', bay: bad.bay, serial: bad.serial })
    await write(engineer, ticket, ago - 5.6, { kind: 'drive-inserted', bay: bad.bay, serial: part.serial })
    await write(engineer, ticket, ago - 20, { kind: 'snapshot-taken', snapshot: snapshot(appliance, filled('member')) })
  } else await follow(engineer, ticket, ago - 5, { appliance, bad, part, look: role => (role ? filled(role) : changes) }, stage === 'rebuilding' ? 'joined' : undefined)
  const out = { ...bad }
  Object.assign(bad, { serial: part.serial, model: part.model, bytes: part.bytes }) // from now on this is what stands there
  const reading = (progress, percent) => ({ kind: 'reading-taken', array, progress, phase: 'rebuilding', percent, source: 'person' })
  if (stage === 'rebuilding') {
    await write(engineer, ticket, ago - 8, reading('running', special.percent === null ? null : special.percent / 4))
    await write(engineer, ticket, Math.min(ago - 9, 1), reading('running', special.percent))
    continue
  }
  await write(engineer, ticket, ago - 23, { kind: 'return-opened', serial: out.serial, to: { kind: 'maker', name: out.model.split(' ')[0] }, reason: 'exchange-under-warranty', authorisation: `RX-${20400 + nth}`, dataAgreedBy: 'the keeper on duty' })
  await write(engineer, ticket, ago - 24, { kind: 'return-sent', serial: out.serial, carrier: 'Overfell Parcels', tracking: `OP-${77000 + nth}` })
  if (stage === 'returning') continue
  await write('sefa', ticket, ago - 60, { kind: 'return-arrived', serial: out.serial, serialInBox: out.serial })
  await write(engineer, ticket, ago - 61, { kind: 'customer-signed-off', name: 'the keeper on duty', statement: 'Opened three volumes; all there.' })
  await write('lioth', ticket, ago - 62, bare ? { kind: 'ticket-closed', otherwise: 'handed-over', reason: 'Set up anew, and restored from the backup by the customer.' } : { kind: 'ticket-closed' })
}
console.log(`${nth} tickets.`)
