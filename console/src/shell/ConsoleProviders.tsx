import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { BrowserRouter } from 'react-router'
import { ApiProblem, isOutOfContact } from '../shared/api'
import { theme } from './theme'

/** Everything a page may count on above it. */
export function ConsoleProviders({ children }: { children: ReactNode }) {
  const [client] = useState(newQueryClient)
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={client}>
        <BrowserRouter>{children}</BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  )
}

function newQueryClient() {
  return new QueryClient({
    defaultOptions: {
      queries: { staleTime: 5_000, retry: (count, error) => !(error instanceof ApiProblem) && count < 2 },
      // An entry carries its own id, so sending it again is sending it once.
      mutations: { networkMode: 'always', retry: (count, error) => isOutOfContact(error) && count < 3 },
    },
  })
}
