export const KERNELS: readonly ['planes', 'sound']
export function compileKernel(name: (typeof KERNELS)[number], file: string): Promise<void>
