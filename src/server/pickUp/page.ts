import { randomBytes } from 'node:crypto'
import type { PickUp } from './pickUp'

export interface Page {
  html: string
  policy: string
}

/** Text in a page: never markup. */
const escaped = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

const STYLE = `
  :root { color-scheme: light; }
  * { box-sizing: border-box; }
  body { margin: 0; padding: 20px 16px 40px; font: 16px/1.45 system-ui, sans-serif; color: #20261F; background: #F4F2EC; }
  main { max-width: 560px; margin: 0 auto; }
  h1 { font-size: 20px; margin: 0 0 4px; } h1 span { color: #2E5E3E; }
  p { margin: 0 0 20px; color: #5A6056; }
  .wrong { color: #B3402C; font-weight: 600; }
  article { background: #FBFAF6; border: 1px solid #D8D3C5; border-radius: 6px; padding: 12px; margin: 0 0 16px; }
  h2 { font-size: 15px; margin: 0 0 2px; overflow-wrap: anywhere; } small { color: #5A6056; }
  video, img { display: block; width: 100%; max-height: 60vh; margin: 10px 0; background: #2A2B2A; object-fit: contain; border-radius: 4px; }
  .row { display: flex; gap: 10px; }
  a.button, button { flex: 1; display: block; padding: 13px; border-radius: 4px; border: 1px solid #2E5E3E; background: #2E5E3E; color: #fff; font: 600 16px system-ui, sans-serif; text-align: center; text-decoration: none; }
  button.second { background: #FBFAF6; color: #2E5E3E; }
  input { width: 100%; padding: 14px; margin: 0 0 12px; border: 1px solid #5A6056; border-radius: 4px; font: 600 22px ui-monospace, monospace; letter-spacing: .2em; text-transform: uppercase; text-align: center; }
  :focus-visible { outline: 2px solid #2E5E3E; outline-offset: 2px; }
`

/** Shares a file through the phone's own means, where it has them. */
const SCRIPT = `
  for (const button of document.querySelectorAll('button[data-file]')) {
    const probe = new File([''], button.dataset.name, { type: button.dataset.type })
    if (!navigator.canShare || !navigator.canShare({ files: [probe] })) continue
    button.hidden = false
    button.addEventListener('click', async () => {
      const label = button.textContent
      button.disabled = true
      button.textContent = 'Fetching…'
      try {
        const blob = await (await fetch(button.dataset.file)).blob()
        await navigator.share({ files: [new File([blob], button.dataset.name, { type: button.dataset.type })] })
      } catch {}
      button.disabled = false
      button.textContent = label
    })
  }
`

function page(body: string, script = ''): Page {
  const nonce = randomBytes(12).toString('base64')
  const html = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex"><title>Pick up</title><style nonce="${nonce}">${STYLE}</style></head><body><main>${body}</main>${script && `<script nonce="${nonce}">${script}</script>`}</body></html>`
  return {
    html,
    policy: `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; media-src 'self'; img-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'`,
  }
}

export function messagePage(message: string): Page {
  return page(`<h1><span>Brimble</span></h1><p>${escaped(message)}</p>`)
}

/** Asks for the code; `wrong` says what was wrong with the one before. */
export function codePage(wrong: string): Page {
  return page(
    `<h1><span>Brimble</span> pick-up</h1><p>Type the code that stands on the other screen.</p>${wrong && `<p class="wrong" role="alert">${escaped(wrong)}</p>`}<form action="/" method="get"><input name="code" aria-label="Code" autocomplete="off" autocapitalize="characters" maxlength="12" required autofocus><div class="row"><button>Go on</button></div></form>`,
  )
}

/** The files that lie ready. */
export function filesPage({ code, files, expiresAt }: PickUp): Page {
  const minutes = Math.max(1, Math.round((expiresAt - Date.now()) / 60_000))
  const list = files.map(({ name, type, sizeBytes }, n) => {
    const address = `/c/${code}/${n}`
    const seen = pictureOf(type, address)
    return `<article><h2>${escaped(name)}</h2><small>${(sizeBytes / 1e6).toFixed(1)} MB</small>${seen}<div class="row"><a class="button" href="${address}?save" download>Save</a><button class="second" hidden data-file="${address}" data-name="${escaped(name)}" data-type="${type}">Share</button></div></article>`
  })
  return page(
    `<h1><span>Brimble</span> pick-up</h1><p>${files.length} ${files.length === 1 ? 'file' : 'files'}, here for ${minutes} more ${minutes === 1 ? 'minute' : 'minutes'}.</p>${list.join('')}`,
    SCRIPT,
  )
}

/** The file as the page shows it; nothing where it is neither video nor picture. */
function pictureOf(type: string, address: string): string {
  if (type.startsWith('video/')) return `<video src="${address}" controls playsinline preload="metadata"></video>`
  return type.startsWith('image/') ? `<img src="${address}" alt="">` : ''
}
