import { expose } from 'comlink'
import { RecogniseService } from '../speech/recogniseService'

expose(new RecogniseService())
