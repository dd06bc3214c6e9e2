import { expose } from 'comlink'
import { RunsService } from './runs'

expose(new RunsService())
