import DOMPurify from 'dompurify'

/** Of a drawing whose size is not told, or is too small to be a logo on a large canvas. */
const LONGER_SIDE = 1600

/**
 * A vector drawing as a PNG, its longer side 1600 px: nothing of it that runs or that leads elsewhere is kept. Null
 * for what is not a drawing. Only where there is a document.
 */
export async function drawnSvg(file: File): Promise<File | null> {
  const clean = DOMPurify.sanitize(await file.text(), {
    USE_PROFILES: { svg: true, svgFilters: true },
    FORBID_TAGS: ['style', 'foreignObject', 'image', 'a', 'use'],
  })
  const root = new DOMParser().parseFromString(clean, 'text/html').querySelector('svg')
  if (!root) return null
  const size = sizeOf(root)
  const scale = LONGER_SIDE / Math.max(size.width, size.height)
  const [width, height] = [Math.max(1, Math.round(size.width * scale)), Math.max(1, Math.round(size.height * scale))]
  if (!root.hasAttribute('viewBox')) root.setAttribute('viewBox', `0 0 ${size.width} ${size.height}`)
  root.setAttribute('width', String(width))
  root.setAttribute('height', String(height))
  const url = URL.createObjectURL(new Blob([new XMLSerializer().serializeToString(root)], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const canvas = new OffscreenCanvas(width, height)
    canvas.getContext('2d')?.drawImage(image, 0, 0, width, height)
    return new File([await canvas.convertToBlob({ type: 'image/png' })], file.name.replace(/\.svg$/i, '.png'), {
      type: 'image/png',
    })
  } catch {
    return null
  } finally {
    URL.revokeObjectURL(url)
  }
}

function sizeOf(root: Element): { width: number; height: number } {
  const [, , boxWidth = 0, boxHeight = 0] = (root.getAttribute('viewBox') ?? '').split(/[\s,]+/).map(Number)
  if (boxWidth > 0 && boxHeight > 0) return { width: boxWidth, height: boxHeight }
  const told = (side: string) => Number.parseFloat(root.getAttribute(side) ?? '')
  return {
    width: told('width') > 0 ? told('width') : LONGER_SIDE,
    height: told('height') > 0 ? told('height') : LONGER_SIDE,
  }
}
