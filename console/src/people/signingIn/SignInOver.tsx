import { Button, Modal } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { takeOverDrafts } from '../../shared/typed/drafts'
import type { Person } from '../../shared/types'
import { SignInForm } from './SignInForm'
import { useSignedOut } from './signedOut'

/** Signed out in the middle of something: the page stays as it is beneath, and goes on where one was. */
export function SignInOver({ me }: { me: Person }) {
  const client = useQueryClient()
  const [signedOut, settle] = useSignedOut()
  const [other, setOther] = useState<string | null>(null)
  return (
    <Modal
      opened={signedOut}
      onClose={() => {}}
      withCloseButton={false}
      closeOnEscape={false}
      closeOnClickOutside={false}
      title={other ? `Signed in as ${other}` : 'Sign in again'}
    >
      {other === null ? (
        <>
          <p style={{ margin: 0 }}>You were signed out. What you typed is still there beneath.</p>
          <SignInForm
            name={me.name}
            signedIn={name => {
              // Somebody else says first whether they go on with what the one before was at.
              if (name !== me.name) {
                setOther(name)
                return
              }
              settle()
              void client.invalidateQueries()
            }}
          />
        </>
      ) : (
        <GoOn before={me.name} now={other} />
      )}
    </Modal>
  )
}

/** Whoever takes over a device in the middle of a job has what was typed there; whoever only borrows it sees their own day. */
function GoOn({ before, now }: { before: string; now: string }) {
  return (
    <div className="stack">
      <p style={{ margin: 0 }}>{before} was in the middle of this page. What was typed and not sent is still here.</p>
      <div className="row">
        <Button
          onClick={() => {
            takeOverDrafts(before, now)
            window.location.reload()
          }}
        >
          Go on with it
        </Button>
        <Button variant="default" onClick={() => window.location.assign('/')}>
          To my own day
        </Button>
      </div>
    </div>
  )
}
