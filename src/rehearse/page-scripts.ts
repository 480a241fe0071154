// Scripts that run in the page, as texts: they belong to another world than this program.

/** Reports which service worker a page requests. */
export const watchWorkerScript = `(() => {
  const container = navigator.serviceWorker
  if (!container) return
  const register = container.register.bind(container)
  container.register = (script, options) => {
    globalThis.__rehearsed(new URL(script, location.href).href)
    return register(script, options)
  }
})()`

/** What a person would see of a page. */
export interface Look {
  readonly blank: boolean
  readonly overflows: boolean
  readonly links: readonly string[]
}

/** Looks whether there is anything, whether it fits, and where it leads. Its value is a {@link Look}. */
export const lookScript = (mostLinks: number): string => `(() => {
  const { body, documentElement: root } = document
  const shown = 'img, svg, canvas, video, iframe, input, button, picture'
  return {
    blank: !body || (body.innerText.trim() === '' && body.querySelector(shown) === null),
    overflows: root.scrollWidth > window.innerWidth + 1,
    links: [...document.querySelectorAll('a[href]')].slice(0, ${mostLinks}).map((link) => String(link.href)),
  }
})()`
