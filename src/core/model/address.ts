/**
 * 127/8, ::1, localhost and every name below it (RFC 6761, 6.3).
 * @param hostname as a URL gives it: the URL parser has normalised odd notations
 */
export function isLoopback(hostname: string): boolean {
  return (
    hostname === 'localhost' ||
    hostname.endsWith('.localhost') ||
    hostname === '[::1]' ||
    /^127\./.test(hostname)
  )
}
