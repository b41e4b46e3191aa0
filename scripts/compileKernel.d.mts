export function compileKernel(file: string): Promise<void>
