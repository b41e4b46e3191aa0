import { expose } from 'comlink'
import { SpeechDetector } from '../analyse/speechDetector'

expose(new SpeechDetector())
