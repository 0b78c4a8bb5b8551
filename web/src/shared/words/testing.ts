/** Components under test say what they say, in English. */
import { config } from '@vue/test-utils'
import { saying } from '.'

config.global.plugins = [saying]
