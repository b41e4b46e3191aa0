import { expose } from 'comlink'
import { inspectService } from '../inspect/inspectService'

expose(inspectService())
