/** Components under test say what they say, in English. */
import { config } from '@vue/test-utils'
import { words } from '.'

config.global.plugins = [words]
