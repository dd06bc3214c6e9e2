import { expose } from 'comlink'
import { thumbnailOf } from './thumbnail'

/** Pictures of the shelf are reckoned beside the page. */
expose({ thumbnailOf })
