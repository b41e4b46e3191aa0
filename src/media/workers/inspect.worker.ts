import { expose } from 'comlink'
import { InspectService } from '../inspect/inspectService'

expose(new InspectService())
