/** Stands in for a polyfill that the decoder’s package asks for, which needs a page and is not needed in any browser. */
export const Blob = globalThis.Blob
