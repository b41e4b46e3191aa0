import { expose } from 'comlink'
import { RenderService } from '../render/renderService'

expose(new RenderService())
