export interface SpeechWorker {
  /** Loads the model, which takes a moment. */
  makeReady(): Promise<void>
  /** Probability of speech, 0..1, of each 256 samples of mono sound at 8 kHz. */
  probabilities(mono: Float32Array): Promise<Float32Array>
}
