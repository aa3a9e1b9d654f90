import { PasswordInput, type PasswordInputProps } from '@mantine/core'

/** The password one has, said once more before what lets one in is changed. */
export function PasswordOnceMore(props: PasswordInputProps) {
  return (
    <PasswordInput
      label="Your password, once more"
      autoComplete="current-password"
      required
      withAsterisk={false}
      visibilityToggleButtonProps={{ 'aria-label': 'Show the password' }}
      {...props}
    />
  )
}
