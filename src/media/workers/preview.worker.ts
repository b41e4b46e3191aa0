import { expose } from 'comlink'
import { PreviewService } from '../playback/previewService'

expose(new PreviewService())
