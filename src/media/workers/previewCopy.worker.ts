import { expose } from 'comlink'
import { PreviewCopyService } from '../previewCopies/previewCopyService'

expose(new PreviewCopyService())
