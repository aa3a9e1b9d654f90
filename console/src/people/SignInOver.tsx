import { Modal } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import type { Person } from '../shared/types'
import { SignInForm } from './SignInForm'
import { useSignedOut } from './signedOut'

/** Signed out in the middle of something: the page stays as it is beneath, and goes on where one was. */
export function SignInOver({ me }: { me: Person }) {
  const client = useQueryClient()
  const [signedOut, settle] = useSignedOut()
  return (
    <Modal
      opened={signedOut}
      onClose={() => {}}
      withCloseButton={false}
      closeOnEscape={false}
      closeOnClickOutside={false}
      title="Sign in again"
    >
      <p style={{ margin: 0 }}>You were signed out. What you typed is still there beneath.</p>
      <SignInForm
        name={me.name}
        signedIn={name => {
          settle()
          // Somebody else sees their own day, not what the one before was at.
          if (name !== me.name) window.location.assign('/')
          else void client.invalidateQueries()
        }}
      />
    </Modal>
  )
}
