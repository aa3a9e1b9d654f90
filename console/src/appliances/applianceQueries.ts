import { queryOptions, useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../shared/api'

export const useMachines = (find: string, after: string | null) =>
  useQuery({
    queryKey: ['machines', 'list', find, after],
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/appliances', { params: { query: { find, ...(after ? { after } : {}) } }, signal })),
    placeholderData: earlier => earlier,
  })

export const useWaitingMachines = (may: boolean) =>
  useQuery({
    queryKey: ['machines', 'certificates'],
    enabled: may,
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/certificates', { signal })),
  })

export const machineQuery = (asset: string) =>
  queryOptions({
    queryKey: ['machines', asset],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances/{asset}', { params: { path: { asset } }, signal })),
  })

export const useSnapshots = (asset: string) =>
  useQuery({
    queryKey: ['machines', asset, 'snapshots'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances/{asset}/snapshots', { params: { path: { asset } }, signal })),
  })

export const useBayMap = (asset: string) =>
  useQuery({
    queryKey: ['machines', asset, 'map'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/appliances/{asset}/map', { params: { path: { asset } }, signal })),
  })

/** Two snapshots held against each other; with the same name twice, that one alone. */
export const useComparison = (before: string | null, after: string | null) =>
  useQuery({
    queryKey: ['snapshots', before, after],
    enabled: Boolean(before && after),
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/snapshots/compare', { params: { query: { before: before ?? '', after: after ?? '' } }, signal })),
  })

export const useDrive = (serial: string) =>
  useQuery({
    queryKey: ['drives', serial],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/drives/{serial}', { params: { path: { serial } }, signal })),
  })

export const useFoundDrives = (find: string) =>
  useQuery({
    queryKey: ['drives', 'find', find],
    enabled: find.length >= 4,
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/drives', { params: { query: { find } }, signal })),
  })
