import type { PostId } from '@/core/model/ids'
import type { Post, PostState } from '@/core/model/post'
import { newRecord } from '@/core/model/record'
import { isDue } from '@/core/week/week'
import { newId } from '@/core/model/ids'
import { nowStamp } from './clock'
import { database } from './database'
import { readAll } from './readAll'

export type NewPost = Pick<Post, 'renderId' | 'outletId' | 'dueAt' | 'title' | 'text'>

/** Every post, by its time. */
export async function allPosts(): Promise<Post[]> {
  return readAll('post', await database().posts.orderBy('dueAt').toArray()).filter((p) => !p.deletedAt)
}

export async function planPost(made: NewPost): Promise<Post> {
  const post: Post = { ...newRecord(nowStamp()), id: newId<PostId>(), ...made, state: { kind: 'planned' } }
  await database().posts.add(post)
  return post
}

/**
 * Changes a post that has not gone out. A failed one is planned again: whoever changes it means it to be tried.
 * False, with nothing changed, when it has gone or is going.
 */
export async function changePost(id: PostId, change: Partial<NewPost>): Promise<boolean> {
  return database().transaction('rw', database().posts, async () => {
    const post = await database().posts.get(id)
    if (!post || post.state.kind === 'posted' || post.state.kind === 'sending') return false
    await database().posts.update(id, { ...change, state: { kind: 'planned' }, updatedAt: nowStamp() })
    return true
  })
}

export async function setPostState(id: PostId, state: PostState): Promise<void> {
  await database().posts.update(id, { state, updatedAt: nowStamp() })
}

/**
 * Takes the post that is due first, marked as being sent; in one step, so that nobody else takes it too. Undefined
 * when none is due.
 */
export async function takeDuePost(now: Date): Promise<Post | undefined> {
  return database().transaction('rw', database().posts, async () => {
    const due = (await allPosts()).find((p) => isDue(p, now))
    if (due) await setPostState(due.id, { kind: 'sending' })
    return due
  })
}

/**
 * What was being sent when a tab was closed is planned again: outlets know each post by its key, so that none goes
 * out twice. Only for whoever alone sends.
 */
export async function resumeSending(): Promise<void> {
  for (const post of await allPosts())
    if (post.state.kind === 'sending') await setPostState(post.id, { kind: 'planned' })
}

export async function deletePost(id: PostId): Promise<void> {
  await database().posts.delete(id)
}

/** Puts back a post that was deleted. */
export async function restorePost(post: Post): Promise<void> {
  await database().posts.put(post)
}
