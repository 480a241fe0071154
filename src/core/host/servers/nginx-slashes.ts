import type { Host } from '../host.ts'

/** The page that a path means, whose file has an ending that the path has not: `$named` says whether there is one. */
const named = [
  'set $name $request_filename;',
  'if ($request_filename ~ "^(.*)/$") { set $name $1; }',
  'set $named "";',
  'if (-f $name.html) { set $named page; }',
]

/** What nginx needs, beside files and directories, to take the last slash from paths, or to add it to those of pages. */
export function slashes({ trailingSlash, extensionless, directoryIndex }: Host, base: string): string[] {
  if (trailingSlash === 'drop') return dropped(extensionless, directoryIndex, base)
  return trailingSlash === 'add' && extensionless ? added(directoryIndex, base) : []
}

function dropped(leavesEndingsOut: boolean, index: string, base: string): string[] {
  // A page beside a directory of its name is what is meant without the slash.
  const pages = [
    ...named,
    'if ($uri !~ "/$") { set $named ""; }',
    `if ($uri = "${base}") { set $named ""; }`,
    'if ($named) { rewrite "^(.+)/$" $1 permanent; }',
    'if (-f $request_filename.html) { set $found ""; }',
  ]
  return [
    'set $found "";',
    `if (-f $request_filename/${index}) { set $found index; }`,
    `if ($uri = "${base}") { set $found ""; }`,
    ...(leavesEndingsOut ? pages : []),
    `if ($found) { rewrite "^(.+)/$" $1 permanent; rewrite "^(.*)$" $1/${index} last; }`,
    // A directory without an index is nothing, with the slash or without.
    'set $bare "";',
    'if (-d $request_filename) { set $bare yes; }',
    `if (-f $request_filename/${index}) { set $bare ""; }`,
    ...(leavesEndingsOut ? ['if (-f $request_filename.html) { set $bare ""; }'] : []),
    'if ($bare) { return 404; }',
  ]
}

function added(index: string, base: string): string[] {
  return [
    ...named,
    'if (-f $request_filename) { set $named ""; }',
    // With the slash an index comes first.
    `if (-f $name/${index}) { set $named "$named $uri"; }`,
    'if ($named ~ "^(?:page)? .*/$|^ ") { set $named ""; }',
    `if ($uri = "${base}") { set $named ""; }`,
    'if ($named) { rewrite "^(.*)/$" $1.html last; rewrite "^(.*)$" $1/ permanent; }',
  ]
}
