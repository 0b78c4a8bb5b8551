import '@fontsource-variable/commissioner/index.css'
import '@fontsource-variable/spline-sans-mono/index.css'
import 'element-plus/theme-chalk/base.css'
import 'element-plus/theme-chalk/el-message.css'
import 'element-plus/theme-chalk/el-message-box.css'
import './styles/tokens.css'
import './styles/base.css'
import { speak } from './shared/words'

// what is said is there before the screens that say it
const screens = speak().then(() => import('./app/start'))
void screens.then(({ start }) => start())
