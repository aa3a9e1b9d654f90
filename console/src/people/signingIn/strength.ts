import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import * as common from '@zxcvbn-ts/language-common'

const meter = new ZxcvbnFactory({ dictionary: common.dictionary, graphs: common.adjacencyGraphs })

/** How well a password holds, from 0 to 4: by how many guesses it takes of somebody who tries what people choose first. */
export function strengthOf(password: string, own: readonly string[]): number {
  return meter.check(password, [...own, 'nailcrow']).score
}
