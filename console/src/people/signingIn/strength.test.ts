import { expect, it } from 'vitest'
import { strengthOf } from './strength'

it.each([
  ['password1234', 1],
  ['qwertyuiop12', 1],
  ['P@ssw0rd2026', 2],
])('does not praise %s', (password, most) => {
  expect(strengthOf(password, [])).toBeLessThanOrEqual(most)
})

it.each(['seven grey kettles', 'q9$Lw-ve7Tzp!x', 'the lamp of bay five is off'])('says that %s holds', password => {
  expect(strengthOf(password, [])).toBe(4)
})

it('takes nothing for strong that is made of who one is', () => {
  expect(strengthOf('norra.selmark', ['norra', 'Norra Selmark'])).toBeLessThan(strengthOf('norra.selmark', []))
})
