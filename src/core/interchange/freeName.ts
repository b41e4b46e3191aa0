/** `name`, or with the first number that makes it unlike all of `taken`. */
export function freeName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name
  const bare = name.replace(/ \(\d+\)$/, '').slice(0, 190)
  for (let n = 2; ; n++) if (!taken.includes(`${bare} (${n})`)) return `${bare} (${n})`
}
