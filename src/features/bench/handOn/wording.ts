/** What the interface says in this room, each sentence once. */
export const wording = {
  bundleWithWhatIsUsed: 'Bundle with the footage used',
  theEditItsPicturesAnd:
    'The edit, its pictures and fonts, and of the recordings what is used, with 3 s on either side',
  bundleWithWholeRecordings: 'Bundle with whole recordings',
  toGoOnCuttingElsewhere: 'To go on cutting elsewhere',
  bundleWithoutRecordings: 'Bundle without recordings',
  forSomebodyWhoHasThem: 'For somebody who has them',
  saved: (list: string) => `Saved. ${list}`,
  theBundleCouldNotBe: (explain: string) => `The bundle could not be made (${explain}). The highlight is as it was.`,
  handOn: 'Export',
  bundling: (share: number) => `Bundling, ${share} %`,
  forAnotherBrimble: 'For another Brimble',
  editAlone: 'Edit alone',
  aSmallFileForRenders: 'A small file, for renders without a person and for archives',
  forOtherTools: 'For other tools',
  timelineOpentimelineio: 'Timeline (OpenTimelineIO)',
  cutsSpeedsJoinsAndMarkers: (id: string) => `Cuts, speeds, joins and markers; a track for each panel of ${id}`,
  cutListCmx3600Edl: 'Cut list (CMX 3600 EDL)',
  cutsSpeedsAndDissolves: 'Cuts, speeds and dissolves',
  ffmpegScript: (id: string) => `ffmpeg script, ${id}`,
  makesTheSameArrangementFrom: 'Makes the same arrangement from the recordings, on any machine with ffmpeg',
}
