import { useEffect, useRef, useState } from 'react'
import type { Payload } from '../../../src/core/report/formats/html.ts'
import type { Collected } from './collect.ts'
import type { Reply, Request, Serving, Side } from './messages.ts'
// A worker from a file has the policy of that file's answer; one from a blob has this page's, which lets nothing out.
import DeskWorker from './worker.ts?worker&inline'

/** How far a folder is. */
export type Progress =
  | { readonly is: 'empty' }
  | { readonly is: 'collecting'; readonly label: string; readonly files: number }
  | { readonly is: 'reading'; readonly label: string; readonly share: number }
  | { readonly is: 'read'; readonly label: string; readonly files: number }
  | { readonly is: 'failed'; readonly message: string }

const empty: Progress = { is: 'empty' }

/** What is on the desk, and what was found. The work is done in a worker. */
export function useDesk() {
  const worker = useRef<Worker | null>(null)
  const [now, setNow] = useState<Progress>(empty)
  const [before, setBefore] = useState<Progress>(empty)
  const [serving, setServing] = useState<Serving>({ site: '', host: 'files', routes: [] })
  const [payload, setPayload] = useState<Payload | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  /** What still comes of a folder that was stopped, or taken away, is nobody's. */
  const isOn = useRef<Record<Side, boolean>>({ now: false, before: false })
  /** Counts the folders that were put down: what comes of one that was stopped is nobody's. */
  const turns = useRef<Record<Side, number>>({ now: 0, before: 0 })
  const labels = useRef<Record<Side, string>>({ now: '', before: '' })

  const set = (side: Side, progress: Progress): void => (side === 'now' ? setNow : setBefore)(progress)
  const send = (request: Request): void => worker.current?.postMessage(request)

  const servingNow = useRef(serving)
  servingNow.current = serving
  const heard = (message: Reply): void => {
    if ('side' in message && !isOn.current[message.side]) return
    if (message.kind === 'checked') {
      setRefused(null)
      setPayload(message.payload)
    } else if (message.kind === 'refused') setRefused(message.message)
    else if (message.kind === 'failed') {
      set(message.side, { is: 'failed', message: message.message })
      if (message.side === 'now') setPayload(null)
    } else {
      const label = labels.current[message.side]
      if (message.kind === 'progress') {
        set(message.side, { is: 'reading', label, share: message.done / Math.max(1, message.of) })
        return
      }
      set(message.side, { is: 'read', label, files: message.files })
      const { proposal } = message
      const next =
        message.side === 'now' && proposal !== null && servingNow.current.site === ''
          ? { ...servingNow.current, site: proposal }
          : servingNow.current
      setServing(next)
      send({ kind: 'check', serving: next })
    }
  }

  const hear = useRef(heard)
  hear.current = heard
  useEffect(() => {
    const own = new DeskWorker()
    own.addEventListener('message', ({ data }: MessageEvent<Reply>) => hear.current(data))
    worker.current = own
    return () => own.terminate()
  }, [])

  return {
    now,
    before,
    serving,
    payload,
    refused,
    async put(side: Side, { label, files }: Collected): Promise<void> {
      labels.current[side] = label
      isOn.current[side] = true
      let collected = 0
      set(side, { is: 'collecting', label, files: collected })
      send({ kind: 'begin', side, label })
      const turn = ++turns.current[side]
      for await (const batch of files) {
        if (turns.current[side] !== turn) return
        collected += batch.length
        set(side, { is: 'collecting', label, files: collected })
        send({ kind: 'files', side, files: batch })
      }
      if (turns.current[side] !== turn) return
      set(side, { is: 'reading', label, share: 0 })
      send({ kind: 'read', side })
    },
    /** Ends the reading of a folder. */
    stop(side: Side): void {
      turns.current[side]++
      isOn.current[side] = false
      set(side, empty)
      send({ kind: 'stop', side })
      if (side === 'now') setPayload(null)
    },
    take(side: Side): void {
      set(side, empty)
      send({ kind: 'forget', side })
      if (side === 'now') setPayload(null)
      else send({ kind: 'check', serving })
    },
    check(next: Serving): void {
      setServing(next)
      send({ kind: 'check', serving: next })
    },
  }
}
