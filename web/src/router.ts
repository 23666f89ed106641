import { createRouter, createWebHistory } from 'vue-router'
import AssemblyRoom from './features/assembly/AssemblyRoom.vue'
import BoardRoom from './features/board/BoardRoom.vue'
import BenchRoom from './features/bench/BenchRoom.vue'
import CleanPicture from './features/bench/CleanPicture.vue'
import DispatchRoom from './features/dispatch/DispatchRoom.vue'
import PairingRoom from './features/pairing/PairingRoom.vue'
import RenditionsRoom from './features/renditions/RenditionsRoom.vue'
import IntakeRoom from './features/intake/IntakeRoom.vue'
import PeoplePage from './features/people/PeoplePage.vue'
import ReviewPage from './features/review/ReviewPage.vue'
import PatchWindow from './features/screens/PatchWindow.vue'
import ScreensRoom from './features/screens/ScreensRoom.vue'
import SettingsRoom from './features/settings/SettingsRoom.vue'
import StartPage from './features/start/StartPage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'start', component: StartPage },
    { path: '/projects/:project(\\d+)/intake', name: 'intake', component: IntakeRoom },
    { path: '/projects/:project(\\d+)/assembly', name: 'first-assembly', component: AssemblyRoom },
    { path: '/projects/:project(\\d+)/settings', name: 'settings', component: SettingsRoom },
    { path: '/projects/:project(\\d+)/screens', name: 'screens', component: ScreensRoom },
    { path: '/projects/:project(\\d+)/screens/:screen(\\d+)/patch', name: 'patch', component: PatchWindow, meta: { bare: true } },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/assembly', name: 'assembly', component: AssemblyRoom },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/bench', name: 'bench', component: BenchRoom },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/board', name: 'board', component: BoardRoom },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/pairing', name: 'pairing', component: PairingRoom },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/renditions', name: 'renditions', component: RenditionsRoom },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/dispatch', name: 'dispatch', component: DispatchRoom },
    { path: '/projects/:project(\\d+)/cuts/:cut(\\d+)/clean', name: 'clean', component: CleanPicture, meta: { bare: true } },
    { path: '/people', name: 'people', component: PeoplePage },
    { path: '/review/:secret', name: 'review', component: ReviewPage, meta: { open: true } },
    { path: '/:rest(.*)*', redirect: { name: 'start' } },
  ],
})
