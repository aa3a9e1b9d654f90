#!/usr/bin/env node
// Checks a ticket's proof offline: node docs/check-proof.mjs FILE [FINGERPRINT]
// It follows docs/journal.md, section "Proving one ticket", and shares no code with what made the proof.
import { createHash, createPublicKey, verify } from 'node:crypto'
import { readFileSync } from 'node:fs'

const [file, fingerprint] = process.argv.slice(2)
if (!file) end(2, 'Say which proof: node docs/check-proof.mjs FILE [FINGERPRINT]')

const sha256 = (...parts) => {
  const hash = createHash('sha256')
  for (const part of parts) hash.update(part)
  return hash.digest()
}

const proof = JSON.parse(readFileSync(file, 'utf8'))
if (proof.proof !== 'nailcrow-proof/1') end(1, `This is no proof: it says '${proof.proof}' where 'nailcrow-proof/1' stands.`)

// 1. The chain: each hash covers the one before it and the entry's text.
let previous = '0'.repeat(64)
for (const [i, { text, hash }] of proof.entries.entries()) {
  const entry = JSON.parse(text)
  if (`T-${entry.ticket}` !== proof.ticket || entry.seq !== i + 1) end(1, `Entry ${i + 1} is number ${entry.seq} of T-${entry.ticket}.`)
  if (sha256(previous, text).toString('hex') !== hash) end(1, `Entry ${i + 1} is not what its hash says.`)
  previous = hash
}

// 2. The seal's own signature, over every line but the last.
const lines = proof.seal.split('\n').filter(Boolean)
const word = name => lines.find(l => l.startsWith(`${name} `))?.slice(name.length + 1)
const key = Buffer.from(word('key') ?? '', 'base64')
const said = Buffer.from(`${lines.slice(0, -1).join('\n')}\n`)
const signature = Buffer.from(word('signature') ?? '', 'base64')
const publicKey = createPublicKey({ key, format: 'der', type: 'spki' })
if (lines[0] !== 'nailcrow-seal/1' || !lines.at(-1).startsWith('signature ')) end(1, 'The seal in it is none.')
if (!verify('sha256', said, { key: publicKey, dsaEncoding: 'ieee-p1363' }, signature)) end(1, "The seal's signature does not hold.")
const print = sha256(key).toString('hex')
if (fingerprint && fingerprint !== print) end(1, `The seal is signed by another key: ${print}.`)

// 3. The path from the last entry to the seal's root (RFC 9162, section 2.1.3.2).
let node = sha256(Buffer.from([0]), previous)
let at = BigInt(proof.leaf)
let last = BigInt(word('entries')) - 1n
if (at > last) end(1, 'The last entry stands behind what was sealed.')
for (const hex of proof.path) {
  const sibling = Buffer.from(hex, 'hex')
  if (last === 0n) end(1, 'The path is longer than the tree is high.')
  if (at & 1n || at === last) {
    node = sha256(Buffer.from([1]), sibling, node)
    while (!(at & 1n) && at !== 0n) {
      at >>= 1n
      last >>= 1n
    }
  } else node = sha256(Buffer.from([1]), node, sibling)
  at >>= 1n
  last >>= 1n
}
if (last !== 0n || node.toString('hex') !== word('root')) end(1, 'The path does not lead to the root that was sealed.')

console.log(`${proof.ticket}: its ${proof.entries.length} entries are contained unchanged in seal ${word('number')} of ${word('sealed-at')}.`)
console.log(`Signed by the key ${print}.${fingerprint ? '' : ' Compare it with the one you were given by another way.'}`)

function end(code, sentence) {
  console.error(sentence)
  process.exit(code)
}
