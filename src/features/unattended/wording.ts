/** What the interface says in this room, each sentence once. */
export const wording = {
  thisPageRendersForScripts:
    'This page renders for scripts and has nothing to click on. What you are looking for is on the other screens; how to render without a person is told in docs/unattended.md.',
  highlights: 'Highlights',
  recordings: 'Recordings',
}
