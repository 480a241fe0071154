import { answeredWithPage } from './asset/answered-with-page.ts'
import { brokenScript } from './asset/broken-script.ts'
import { insecure } from './asset/insecure.ts'
import { integrity } from './asset/integrity.ts'
import { letterCase } from './asset/letter-case.ts'
import { missing } from './asset/missing.ts'
import { onDisk } from './asset/on-disk.ts'
import { policyBlocks } from './asset/policy-blocks.ts'
import { unknownModule } from './asset/unknown-module.ts'
import { withheld } from './asset/withheld.ts'
import { wrongType } from './asset/wrong-type.ts'
import { addressesDisagree } from './base/addresses-disagree.ts'
import { anotherAddress } from './base/another-address.ts'
import { doubleSlash } from './base/double-slash.ts'
import { linkOutside } from './base/link-outside.ts'
import { relativeAtDepth } from './base/relative-at-depth.ts'
import { routerPath } from './base/router-path.ts'
import { unreplacedMarker } from './base/unreplaced-marker.ts'
import { unusable } from './base/unusable.ts'
import { wrongPath } from './base/wrong-path.ts'
import type { Check } from './check.ts'
import { chunksGone } from './delivery/chunks-gone.ts'
import { fileTooLarge } from './delivery/file-too-large.ts'
import { heavyFirstVisit } from './delivery/heavy-first-visit.ts'
import { privateFile } from './delivery/private-file.ts'
import { purge } from './delivery/purge.ts'
import { sourceMap } from './delivery/source-map.ts'
import { tooManyFiles } from './delivery/too-many-files.ts'
import { answeredWithPage as dataAnsweredWithPage } from './endpoint/answered-with-page.ts'
import { endpointInsecure } from './endpoint/insecure.ts'
import { loopback } from './endpoint/loopback.ts'
import { noAnswerEndpoint } from './endpoint/no-answer.ts'
import { originRefused } from './endpoint/origin-refused.ts'
import { otherPort } from './endpoint/other-port.ts'
import { endpointPlaceholder } from './endpoint/placeholder.ts'
import { privateNetwork } from './endpoint/private-network.ts'
import { proxyOnly } from './endpoint/proxy-only.ts'
import { absent } from './env/absent.ts'
import { credentialShape } from './env/credential-shape.ts'
import { developmentValue } from './env/development-value.ts'
import { filePublished } from './env/file-published.ts'
import { outdatedValue } from './env/outdated-value.ts'
import { placeholder } from './env/placeholder.ts'
import { privateValue } from './env/private-value.ts'
import { unreplaced } from './env/unreplaced.ts'
import { configNewer } from './fresh/config-newer.ts'
import { copiesDiffer } from './fresh/copies-differ.ts'
import { pageKept } from './fresh/page-kept.ts'
import { sameAsShipped } from './fresh/same-as-shipped.ts'
import { sourceNewer } from './fresh/source-newer.ts'
import { twoBuilds } from './fresh/two-builds.ts'
import { liveCaching } from './live/caching.ts'
import { liveChanged } from './live/changed-on-way.ts'
import { liveHashedNotKept } from './live/hashed-not-kept.ts'
import { liveMissing } from './live/missing.ts'
import { liveNoAnswer } from './live/no-answer.ts'
import { liveNotCompressed } from './live/not-compressed.ts'
import { liveOldContent } from './live/old-content.ts'
import { livePageInstead } from './live/page-instead.ts'
import { livePlainHttp } from './live/plain-http.ts'
import { livePolicyBlocks } from './live/policy-blocks.ts'
import { liveRouteDiffers } from './live/route-differs.ts'
import { liveWrongType } from './live/wrong-type.ts'
import { registered } from './order.ts'
import { developmentBuild } from './project/development-build.ts'
import { entryReplaced } from './project/entry-replaced.ts'
import { misplaced } from './project/misplaced.ts'
import { needsServer } from './project/needs-server.ts'
import { nodeName } from './project/node-name.ts'
import { notBuilt } from './project/not-built.ts'
import { notRead } from './project/not-read.ts'
import { publishMismatch } from './project/publish-mismatch.ts'
import { siteNested } from './project/site-nested.ts'
import { sourcePublished } from './project/source-published.ts'
import { anotherPage } from './route/another-page.ts'
import { brokenLink } from './route/broken-link.ts'
import { errorStatus } from './route/error-status.ts'
import { hashHandoff } from './route/hash-handoff.ts'
import { hostUnclear } from './route/host-unclear.ts'
import { noAnswer } from './route/no-answer.ts'
import { redirectLeavesSite } from './route/redirect-leaves-site.ts'
import { redirectLoop } from './route/redirect-loop.ts'
import { ruleMisses } from './route/rule-misses.ts'
import { ruleNotPublished } from './route/rule-not-published.ts'
import { ruleShadowed } from './route/rule-shadowed.ts'
import { blankPage } from './run/blank-page.ts'
import { consoleError } from './run/console-error.ts'
import { pageError } from './run/page-error.ts'
import { requestFailed } from './run/request-failed.ts'

/** Every check that comes with the package, by code. */
export const checks: readonly Check[] = /* @__PURE__ */ registered([
  answeredWithPage,
  brokenScript,
  insecure,
  integrity,
  onDisk,
  policyBlocks,
  unknownModule,
  letterCase,
  missing,
  withheld,
  wrongType,
  addressesDisagree,
  anotherAddress,
  doubleSlash,
  linkOutside,
  relativeAtDepth,
  routerPath,
  unreplacedMarker,
  unusable,
  wrongPath,
  chunksGone,
  fileTooLarge,
  heavyFirstVisit,
  privateFile,
  purge,
  sourceMap,
  tooManyFiles,
  dataAnsweredWithPage,
  endpointInsecure,
  loopback,
  noAnswerEndpoint,
  originRefused,
  otherPort,
  endpointPlaceholder,
  privateNetwork,
  proxyOnly,
  absent,
  credentialShape,
  developmentValue,
  filePublished,
  outdatedValue,
  placeholder,
  privateValue,
  unreplaced,
  configNewer,
  copiesDiffer,
  pageKept,
  sameAsShipped,
  sourceNewer,
  twoBuilds,
  liveMissing,
  livePageInstead,
  liveOldContent,
  liveChanged,
  liveWrongType,
  liveNotCompressed,
  liveCaching,
  liveHashedNotKept,
  livePlainHttp,
  liveRouteDiffers,
  livePolicyBlocks,
  liveNoAnswer,
  developmentBuild,
  entryReplaced,
  misplaced,
  needsServer,
  nodeName,
  notBuilt,
  notRead,
  publishMismatch,
  siteNested,
  sourcePublished,
  anotherPage,
  brokenLink,
  errorStatus,
  hashHandoff,
  hostUnclear,
  noAnswer,
  redirectLeavesSite,
  redirectLoop,
  ruleMisses,
  ruleNotPublished,
  ruleShadowed,
  blankPage,
  consoleError,
  pageError,
  requestFailed,
])
