import { expose } from 'comlink'
import { RegionsService } from '../regions/regionsService'

expose(new RegionsService())
