/** Renderers that do a GPU's work on the processor. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|software|basic render/i

let gpu: boolean | undefined

/** Whether there is a GPU here that pages may draw with. */
export function hasGpu(): boolean {
  if (gpu === undefined) {
    const gl = new OffscreenCanvas(1, 1).getContext('webgl2', { failIfMajorPerformanceCaveat: true })
    const names = gl?.getExtension('WEBGL_debug_renderer_info')
    gpu = gl !== null && !SOFTWARE.test(String(gl.getParameter(names ? names.UNMASKED_RENDERER_WEBGL : gl.RENDERER)))
    gl?.getExtension('WEBGL_lose_context')?.loseContext()
  }
  return gpu
}
