import { useEffect } from 'react'

/** The tab is called after the page's heading, whatever room it is of and however late it comes. */
export function useTitle(): void {
  useEffect(() => {
    const name = () => {
      const heading = document.querySelector('main h1')?.textContent?.trim()
      const title = heading && heading !== 'Nailcrow' ? `${heading} · Nailcrow` : 'Nailcrow'
      if (document.title !== title) document.title = title
    }
    name()
    const looking = new MutationObserver(name)
    looking.observe(document.body, { childList: true, subtree: true, characterData: true })
    return () => looking.disconnect()
  }, [])
}
