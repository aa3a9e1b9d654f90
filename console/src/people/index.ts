export { useMe, usePeople } from './peopleQueries'
export { SignInPage } from './SignInPage'
