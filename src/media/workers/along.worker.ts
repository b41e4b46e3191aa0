import { expose } from 'comlink'
import { AlongService } from '../along/alongService'

expose(new AlongService())
