// The browser's own database, past the application; the types are in inDatabase.d.mts.
export function inDatabase(page, work, argument) {
  return page.evaluate(`(async () => {
    const done = (what) =>
      new Promise((resolve, reject) => {
        what.onerror = () => reject(what.error)
        what.onabort = what.onerror
        what.onsuccess = what.oncomplete = () => resolve(what.result)
      })
    const db = await done(indexedDB.open('brimble'))
    try {
      return await (${String(work)})(db, done, ${JSON.stringify(argument ?? null)})
    } finally {
      db.close()
    }
  })()`)
}
