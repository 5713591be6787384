import { defineAsyncComponent, type Component } from 'vue'
import { say } from './say'

const againMs = 1500

/** What lies behind a door, fetched when it is opened. While the program is away the door waits for it, and says so once. */
export const later = <C extends Component>(load: () => Promise<{ default: C }>): C =>
  defineAsyncComponent({
    loader: load as () => Promise<{ default: C }>,
    onError(_, retry, __, attempts) {
      if (attempts === 1) say({ message: 'The program does not answer. This opens as soon as it does.', duration: 6000, showClose: true })
      setTimeout(retry, againMs)
    },
  }) as C
