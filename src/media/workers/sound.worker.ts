import { expose } from 'comlink'
import { SoundService } from '../sound/soundService'

expose(new SoundService())
