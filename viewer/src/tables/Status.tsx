/** A status code; one that a visitor should not meet says so in more than colour. */
export function Status({ status, bad }: { readonly status: number; readonly bad: boolean }) {
  return <span className={bad ? 'status status-bad' : 'status'}>{bad ? `${status} ✕` : status}</span>
}
