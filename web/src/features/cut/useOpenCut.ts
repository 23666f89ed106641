import { onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useScreens } from '../screens/useScreens'
import { useCatalogue } from '../shell/useCatalogue'
import { useNotices } from '../shell/useNotices'
import { useCut } from './useCut'

/**
 * Opens the cut the address names, with the catalogue, and again whenever the address changes.
 *
 * @returns whether it is open
 */
export function useOpenCut() {
  const route = useRoute()
  const cut = useCut()
  const catalogue = useCatalogue()
  const screens = useScreens()
  const notices = useNotices()
  const opened = ref(false)

  async function open() {
    opened.value = false
    try {
      await Promise.all([catalogue.load(), screens.once(), cut.open(String(route.params.cut))])
      opened.value = true
    } catch (error) {
      notices.trouble(error)
    }
  }
  onMounted(open)
  watch(
    () => route.params.cut,
    (id) => id && void open(),
  )
  return opened
}
