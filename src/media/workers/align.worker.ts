import { expose } from 'comlink'
import { AlignService } from '../speech/alignService'

expose(new AlignService())
