import { expose } from 'comlink'
import { ReadService } from '../read/readService'

expose(new ReadService())
