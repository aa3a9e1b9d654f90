import { cleanup } from '@testing-library/react'
import { afterEach } from 'vitest'

afterEach(cleanup)
window.matchMedia ??= query =>
  ({
    matches: false,
    media: query,
    onchange: null,
    addListener() {},
    removeListener() {},
    addEventListener() {},
    removeEventListener() {},
    dispatchEvent: () => false,
  }) as MediaQueryList
