// What is said in the demo footage and when: the one place that tells the voices, the mouths, the WebVTT files and
// the tests.
// `at` is the second in the recording at which the line starts; `gain` lifts a line above ordinary speech (the loud
// moment).

/** @typedef {{ at: number, voice: string, speaker: string, text: string, gain?: number }} Line */

/** @type {Record<string, { title: string, durationSeconds: number, lines: Line[] }>} */
export const scripts = {
  'ridge-cup-stream': {
    title: 'Ridge Cup, heat 3',
    durationSeconds: 40,
    lines: [
      { at: 0.8, voice: 'slt', speaker: 'Wren', text: 'Okay, gate five is behind us, nice and calm.' },
      { at: 4.4, voice: 'slt', speaker: 'Wren', text: 'I think the lift is on the far side of the ridge.' },
      {
        at: 10.6,
        voice: 'slt',
        speaker: 'Wren',
        text: 'And that is the last gate before the ridge, stay low, stay low.',
      },
      { at: 16.9, voice: 'slt', speaker: 'Wren', text: 'Oh! The lift is right here!', gain: 1.5 },
      { at: 19.4, voice: 'slt', speaker: 'Wren', text: 'Go, go, go! Clean turn!', gain: 2.6 },
      { at: 22.6, voice: 'slt', speaker: 'Wren', text: 'Three seconds up on the board.' },
      { at: 25.6, voice: 'slt', speaker: 'Wren', text: 'Sorry, I leaned out, the radio is calling.' },
      { at: 33.2, voice: 'slt', speaker: 'Wren', text: 'And we are over the finish, unbelievable.' },
      { at: 36.8, voice: 'slt', speaker: 'Wren', text: 'Thank you for flying with us.' },
    ],
  },
  'open-day-call': {
    title: 'Open day call',
    durationSeconds: 30,
    lines: [
      { at: 0.7, voice: 'rms', speaker: 'Odo', text: 'Right, the open day is on the first Sunday of May.' },
      { at: 4.6, voice: 'slt', speaker: 'Wren', text: 'Good. I will bring the simulator and the big screen.' },
      { at: 9.6, voice: 'rms', speaker: 'Odo', text: 'Can we fly visitors before noon?' },
      { at: 12.4, voice: 'slt', speaker: 'Wren', text: 'Only from the winch, and only if the wind stays west.' },
      { at: 18.6, voice: 'rms', speaker: 'Odo', text: 'Then put the tea tent by the hangar, not by the field.' },
      { at: 23.2, voice: 'slt', speaker: 'Wren', text: 'Agreed. And nobody feeds the sheep this year.' },
      { at: 27.0, voice: 'rms', speaker: 'Odo', text: 'That was one time.' },
    ],
  },
  'reading-thermals-webinar': {
    title: 'Reading thermals, webinar',
    durationSeconds: 30,
    lines: [
      { at: 0.8, voice: 'awb', speaker: 'Ines', text: 'Welcome. Tonight we read thermals from the ground up.' },
      { at: 5.0, voice: 'awb', speaker: 'Ines', text: 'A thermal starts where the ground is warmer than the air.' },
      {
        at: 10.4,
        voice: 'awb',
        speaker: 'Ines',
        text: 'Look for dark fields, dry soil, and the sunny side of a wood.',
      },
      { at: 16.6, voice: 'awb', speaker: 'Ines', text: 'The core leans with the wind, so search upwind of the cloud.' },
      { at: 22.6, voice: 'awb', speaker: 'Ines', text: 'Here is what last Saturday gave us, hour by hour.' },
      { at: 26.6, voice: 'awb', speaker: 'Ines', text: 'Questions, please.' },
    ],
  },
}

/** Seconds of the stream in which the drawn pilot leans half out of the facecam. */
export const leanOut = { from: 25.4, to: 28.6 }

/** The stream's loudest line: the moment a highlight would be cut around. */
export const loudMoment = { from: 19.4, to: 21.6 }

/** Where things are in the stream's frame, px at 1920 × 1080. `border` is drawn inside `facecam`. */
export const streamPlaces = { facecam: { x: 1396, y: 752, width: 488, height: 278 }, border: 4 }
