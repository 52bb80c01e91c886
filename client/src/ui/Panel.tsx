import { Dialog as Primitive } from 'radix-ui'
import { useEffect, useRef, type ReactNode } from 'react'
import { ScrollArea } from './ScrollArea'
import { useIsWide } from './use-media'

interface PanelProps {
  title: ReactNode
  facts?: ReactNode
  /** What closes it; a panel that is always there has none. */
  close?: () => void
  /** On a small screen the picture stays in reach above it. */
  atHand?: boolean
  /** It comes at somebody's wish to write in it, and has the focus. */
  forWriting?: boolean
  className?: string
  children: ReactNode
}

/** Details: beside the picture where there is room, on a small screen a sheet from below. Escape and Close put it away. */
export function Panel(props: PanelProps) {
  const wide = useIsWide()
  return wide || !props.close ? <Beside {...props} /> : <Sheet {...props} close={props.close} />
}

function Beside({ title, facts, close, forWriting = false, className = '', children }: PanelProps) {
  const heading = useRef<HTMLHeadingElement>(null)
  useEscape(close)
  useFocus(heading, forWriting)
  return (
    <aside aria-label="Details" className={`border-line bg-plaster max-lg:border-t lg:border-l ${className}`}>
      {/* What scrolls within says itself where it stands: what keeps it in sight is around it. */}
      <div className="lg:sticky lg:top-0">
        <ScrollArea className="lg:max-h-screen">
          <div className="px-5 py-4">
            <div className="flex items-start justify-between gap-3">
              <div>
                <h2 ref={heading} tabIndex={-1} className="text-xl leading-snug outline-none">
                  {title}
                </h2>
                {facts && <p className="text-soft">{facts}</p>}
              </div>
              {close && (
                <button type="button" className="quiet-link" onClick={close}>
                  Close
                </button>
              )}
            </div>
            <div className="mt-3 grid gap-4 [&_h3]:mb-1 [&_h3]:text-base">{children}</div>
          </div>
        </ScrollArea>
      </div>
    </aside>
  )
}

function Sheet({ title, facts, close, atHand = false, children }: PanelProps & { close: () => void }) {
  useEffect(() => {
    if (!atHand) return
    document.body.classList.add('has-sheet-at-hand')
    return () => document.body.classList.remove('has-sheet-at-hand')
  }, [atHand])
  // What it is about may stand where the sheet has come to lie: it is brought above it; how far is said in styles.css.
  useEffect(() => {
    if (atHand) document.querySelector('[data-grid][tabindex="0"]')?.scrollIntoView({ block: 'nearest' })
  }, [atHand, title, facts])
  return (
    <Primitive.Root open modal={!atHand} onOpenChange={(open) => !open && close()}>
      <Primitive.Portal>
        {!atHand && <Primitive.Overlay className="fixed inset-0 z-40 bg-ink/35" />}
        <Primitive.Content
          aria-label="Details"
          aria-describedby={undefined}
          onInteractOutside={(event) => atHand && event.preventDefault()}
          onOpenAutoFocus={(event) => atHand && event.preventDefault()}
          className={`fixed inset-x-0 bottom-14 z-40 overflow-y-auto rounded-t-xl border-t border-line bg-plaster px-5 pt-3 pb-6 shadow-[0_-8px_24px_rgb(0_0_0/0.12)] md:bottom-0 ${atHand ? 'max-h-[46vh]' : 'max-h-[78vh]'}`}
        >
          <div className="flex items-start justify-between gap-3">
            <div>
              <Primitive.Title className="text-xl leading-snug">{title}</Primitive.Title>
              {facts && <p className="text-soft">{facts}</p>}
            </div>
            <Primitive.Close className="button">Close</Primitive.Close>
          </div>
          <div className="mt-3 grid gap-4 [&_h3]:mb-1 [&_h3]:text-base">{children}</div>
        </Primitive.Content>
      </Primitive.Portal>
    </Primitive.Root>
  )
}

/** Escape puts the panel away, unless a list or a menu above it has taken the key. */
function useEscape(close: (() => void) | undefined) {
  const latest = useRef(close)
  useEffect(() => {
    latest.current = close
  })
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented || !latest.current) return
      event.preventDefault()
      latest.current()
    }
    document.addEventListener('keydown', listen)
    return () => document.removeEventListener('keydown', listen)
  }, [])
}

/** What is written in gets the focus, and gives it back to where it was. */
function useFocus(heading: React.RefObject<HTMLElement | null>, wanted: boolean) {
  useEffect(() => {
    if (!wanted) return
    const before = document.activeElement as HTMLElement | null
    const panel = heading.current?.closest('aside')
    heading.current?.focus()
    return () => {
      const now = document.activeElement
      if (now === document.body || panel?.contains(now)) before?.focus()
    }
  }, [wanted, heading])
}
