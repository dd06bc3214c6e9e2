import { expose } from 'comlink'
import { ExchangeService } from './exchange'

expose(new ExchangeService((done, total) => self.postMessage({ progress: total === 0 ? 1 : done / total })))
