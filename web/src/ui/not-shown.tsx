import { useRouteError } from 'react-router'
import { Waiting } from './waiting.tsx'

/** Shown instead of a screen whose code can't be had, or that has a fault. Loaded again, it is as it was left: edits are journaled, and drafts stored. */
export function NotShown() {
  const error = useRouteError()
  // Browsers word it differently; all of them reject a module that can't be fetched with this type (HTML standard, "import()").
  const isUnreachable = error instanceof TypeError && /module|import/i.test(error.message)
  return (
    <Waiting title="This screen can’t be shown">
      {isUnreachable
        ? 'Can’t reach the server to load it. Check the connection, then try again.'
        : 'Something went wrong in it. Try again; if it happens again, go to another screen and tell your site’s administrator.'}{' '}
      What you typed is kept.{' '}
      <button type="button" onClick={() => window.location.reload()}>
        Try again
      </button>
    </Waiting>
  )
}
