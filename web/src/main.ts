import '@fontsource-variable/commissioner/index.css'
import '@fontsource-variable/spline-sans-mono/index.css'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/el-message.css'
import 'element-plus/theme-chalk/el-message-box.css'
import './styles/tokens.css'
import './styles/base.css'
import { loadEarly } from './app/pages'
import { askEarly } from './shared/api/early'
import { wanted } from './shared/words/language'

// small by itself, so that what is asked of the server is on its way before the scripts are read
askEarly()
// in another language the screens wait for what they say
if (wanted() === 'en') loadEarly(location.pathname)
void import('./app/begin')
