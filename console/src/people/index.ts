export { useMe, usePeople } from './peopleQueries'
export { SignInOver } from './SignInOver'
export { SignInPage } from './SignInPage'
export { noticeSignedOut } from './signedOut'
