import { MantineProvider } from '@mantine/core'
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { BrowserRouter } from 'react-router'
import { noticeSignedOut } from '../people'
import { ApiProblem, isOutOfContact, isSignedOut } from '../shared/api'
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

function newQueryClient(): QueryClient {
  // Wrong words at the sign-in itself are answered there, and end nobody's stay.
  const queryCache = new QueryCache({ onError: error => isSignedOut(error) && noticeSignedOut(client) })
  const mutationCache = new MutationCache({
    onError: (error, _sent, _context, mutation) =>
      isSignedOut(error) && mutation.options.mutationKey?.[0] !== 'sign-in' && noticeSignedOut(client),
  })
  const client = new QueryClient({
    queryCache,
    mutationCache,
    defaultOptions: {
      queries: { staleTime: 5_000, retry: (count, error) => !(error instanceof ApiProblem) && count < 2 },
      // An entry carries its own id, so sending it again is sending it once.
      mutations: { networkMode: 'always', retry: (count, error) => isOutOfContact(error) && count < 3 },
    },
  })
  return client
}
