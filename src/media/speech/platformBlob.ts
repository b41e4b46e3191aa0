/** Stands in for a polyfill that the decoder’s package asks for: it needs a page, and no browser needs it. */
export const Blob = globalThis.Blob
