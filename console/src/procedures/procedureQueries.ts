import { useQuery } from '@tanstack/react-query'
import { api, unwrap } from '../shared/api'

export const useProcedures = () =>
  useQuery({ queryKey: ['procedures'], queryFn: async ({ signal }) => unwrap(await api.GET('/api/procedures', { signal })) })

export const useProcedure = (id: string, version: string | undefined) =>
  useQuery({
    queryKey: ['procedures', id, version ?? 'newest'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/procedures/{id}', { params: { path: { id }, query: { version } }, signal })),
  })

export const useModels = () =>
  useQuery({ queryKey: ['models'], queryFn: async ({ signal }) => unwrap(await api.GET('/api/models', { signal })) })

export const usePreview = (id: string, model: string, version: string | undefined) =>
  useQuery({
    queryKey: ['procedures', id, 'preview', model, version ?? 'newest'],
    enabled: model !== '',
    retry: false,
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/procedures/{id}/preview', { params: { path: { id }, query: { model, version } }, signal })),
  })

export const useDifference = (id: string, before: string, after: string) =>
  useQuery({
    queryKey: ['procedures', id, 'compare', before, after],
    enabled: before !== '' && after !== '' && before !== after,
    queryFn: async ({ signal }) =>
      unwrap(await api.GET('/api/procedures/{id}/compare', { params: { path: { id }, query: { before, after } }, signal })),
  })

export const useTimes = (id: string) =>
  useQuery({
    queryKey: ['procedures', id, 'times'],
    queryFn: async ({ signal }) => unwrap(await api.GET('/api/procedures/{id}/times', { params: { path: { id } }, signal })),
  })
