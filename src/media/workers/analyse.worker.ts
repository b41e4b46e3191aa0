import { expose } from 'comlink'
import { AnalyseService } from '../analyse/analyseService'

expose(new AnalyseService())
