/** Next calls this once, before the server answers anything. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return
  const { sweepAtStart } = await import('./server/sweepAtStart')
  await sweepAtStart()
}
