import type { Outlet } from '@/core/model/outlet'
import type { Post } from '@/core/model/post'
import type { Render } from '@/core/model/render'
import { allPosts } from '@/store/posts'
import { kept } from '@/store/rack'
import { allRenders } from '@/store/renders'

/** A finished render, which can be posted. */
export type PostableFile = Render & { state: Extract<Render['state'], { kind: 'finished' }> }

/** All that the week shows. */
export interface WeekData {
  posts: Post[]
  outlets: Outlet[]
  files: PostableFile[]
}

export async function weekData(): Promise<WeekData> {
  const [posts, outlets, renders] = await Promise.all([allPosts(), kept('outlet'), allRenders()])
  return { posts, outlets, files: renders.filter((r): r is PostableFile => r.state.kind === 'finished') }
}
