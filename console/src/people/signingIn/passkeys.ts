import { api, unwrap } from '../../shared/api'

/** Whether this browser keeps passkeys, and may at this address: a browser keeps none for a bare number, and none without TLS. */
export const passkeysWork = () =>
  typeof PublicKeyCredential !== 'undefined' &&
  'parseCreationOptionsFromJSON' in PublicKeyCredential &&
  window.isSecureContext &&
  !/^[\d.]+$|^\[/.test(window.location.hostname)

export class NoPasskey extends Error {}

async function held<T>(ask: () => Promise<T | null>): Promise<T> {
  try {
    const credential = await ask()
    if (credential) return credential
  } catch (problem) {
    if (!(problem instanceof DOMException)) throw problem
    if (problem.name === 'InvalidStateError') throw new NoPasskey('This device has a passkey of yours already.')
  }
  throw new NoPasskey('No passkey was shown. Nothing was changed; try again, or take another way.')
}

export async function signInByPasskey(): Promise<void> {
  const asked = unwrap(await api.POST('/api/sign-in/passkey'))
  const credential = await held(() =>
    navigator.credentials.get({
      publicKey: PublicKeyCredential.parseRequestOptionsFromJSON(asked.options as PublicKeyCredentialRequestOptionsJSON),
    }),
  )
  unwrap(
    await api.POST('/api/sign-in/passkey/console', {
      body: { state: asked.state, credential: (credential as PublicKeyCredential).toJSON() },
    }),
  )
}

export async function makePasskey(password: string, name: string) {
  const asked = unwrap(await api.POST('/api/me/second-factor/passkeys/ask', { body: { password } }))
  const credential = await held(() =>
    navigator.credentials.create({
      publicKey: PublicKeyCredential.parseCreationOptionsFromJSON(asked.options as PublicKeyCredentialCreationOptionsJSON),
    }),
  )
  return unwrap(
    await api.POST('/api/me/second-factor/passkeys', {
      body: { state: asked.state, credential: (credential as PublicKeyCredential).toJSON(), name },
    }),
  )
}
