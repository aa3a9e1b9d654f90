import { expect, it } from 'vitest'
import { uuid7 } from './uuid'

it('is made as the example of RFC 9562, appendix A.6: its millisecond, its version, its variant, then chance', () => {
  expect(uuid7(Date.parse('2022-02-22T14:22:22-05:00'))).toMatch(/^017f22e2-79b0-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
})
