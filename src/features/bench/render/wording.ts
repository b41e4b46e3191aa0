/** What the interface says in this room, each sentence once. */
export const wording = {
  thisBrowserHasNoEncoder: (list: string) => `This browser has no encoder for ${list}.`,
  inIt: (names: undefined | string, video: string, withSound: boolean, audio: string, container: string) =>
    `${names ?? video}${withSound ? ` and ${audio === 'aac' ? 'AAC' : 'Opus'}` : ''} in ${container === 'mp4' ? 'MP4' : 'WebM'}${withSound ? '' : ', without sound'}`,
  thisBrowserCannotWriteThat: (made: string) => `This browser cannot write that: ${made} instead.`,
  theQualityIsKeptBy: ' The quality is kept by a bitrate: this encoder cannot hold one.',
  theQualityIsHeldWhatever: ' The quality is held, whatever size that takes.',
  thisBrowserHasNoAac: ' This browser has no AAC encoder; Brimble’s own is used.',
  render: 'Render',
  shapesToRender: 'Shapes to render',
  about: (bytes: string) => `about ${bytes}`,
  howLongItTakesIs: 'How long it takes is known after the first render.',
  aboutOnThisMachineAfter: (duration: string) => `About ${duration} on this machine, after what is waiting.`,
  notNow: 'Not now',
  renderOfCount: (count: number) => `Render ${count} ${count === 1 ? 'file' : 'files'}`,
  renderProgress: 'Render progress',
  toGo: (running: number, secondsLeft: number | undefined) =>
    `${running} to go${secondsLeft === undefined ? '' : `, ${Math.ceil(secondsLeft)} s left`}`,
}
