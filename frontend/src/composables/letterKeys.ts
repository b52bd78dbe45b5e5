// Keys of a single character can be switched off: dictation and stray touches press them unmeant.

import { useLocalStorage } from '@vueuse/core'

export const useLetterKeys = () => useLocalStorage('lucky-margin-letter-keys', true)
