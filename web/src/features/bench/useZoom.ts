import { computed, ref, shallowReactive, type Ref } from 'vue'

const SMALLEST = 0.1
const LARGEST = 8
const WHEEL = 0.0015 // of a doubling a pixel

/** How a picture is looked at; several stages may share one. */
export interface Looking {
  /** Screen pixels a picture pixel; null fits the stage. */
  zoom: number | null
  /** Centre of the stage in picture pixels. */
  centre: { x: number; y: number }
}

export const makeLooking = () => shallowReactive<Looking>({ zoom: null, centre: { x: 0, y: 0 } })

/** Where a picture of some raster lies in a stage: fitted, or zoomed and moved. */
export function useZoom(stage: Ref<{ width: number; height: number }>, raster: Ref<{ width: number; height: number }>, looking: Ref<Looking> = ref(makeLooking())) {
  const zoom = computed({ get: () => looking.value.zoom, set: (to) => (looking.value.zoom = to) })
  const centre = computed({ get: () => looking.value.centre, set: (to) => (looking.value.centre = to) })

  const fitted = computed(() => Math.min(stage.value.width / raster.value.width, stage.value.height / raster.value.height) || 1)
  const scale = computed(() => zoom.value ?? fitted.value)
  const place = computed(() => {
    const middle = zoom.value === null ? { x: raster.value.width / 2, y: raster.value.height / 2 } : centre.value
    return {
      x: stage.value.width / 2 - middle.x * scale.value,
      y: stage.value.height / 2 - middle.y * scale.value,
      width: raster.value.width * scale.value,
      height: raster.value.height * scale.value,
    }
  })

  function set(to: number, about: { x: number; y: number }) {
    const next = Math.min(LARGEST, Math.max(SMALLEST, to))
    const under = { x: (about.x - place.value.x) / scale.value, y: (about.y - place.value.y) / scale.value }
    zoom.value = next
    centre.value = { x: under.x + (stage.value.width / 2 - about.x) / next, y: under.y + (stage.value.height / 2 - about.y) / next }
  }

  return {
    scale,
    place,
    fits: computed(() => zoom.value === null),
    fit: () => (zoom.value = null),
    /** Fitted, one to one, two to one, and round again, about the middle. */
    step() {
      const middle = { x: stage.value.width / 2, y: stage.value.height / 2 }
      if (zoom.value === null) set(1, middle)
      else if (zoom.value < 2) set(2, middle)
      else zoom.value = null
    },
    /** One picture pixel to one screen pixel, about a point of the stage. */
    actual: (about = { x: stage.value.width / 2, y: stage.value.height / 2 }) => set(1, about),
    wheel: (amount: number, about: { x: number; y: number }) => set(scale.value * 2 ** (-amount * WHEEL), about),
    pan(dx: number, dy: number) {
      if (zoom.value === null) return
      centre.value = { x: centre.value.x - dx / scale.value, y: centre.value.y - dy / scale.value }
    },
  }
}
