import { sendJson } from '@/api/client'
import type { Shot } from '@/api/cut'
import type { Region } from '@/api/readings'
import type { RecipeDocument } from '@/api/recipe'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { useCut } from '../cut/useCut'
import { usePaste } from '../grade/usePaste'
import { useRecipes } from '../grade/useRecipes'
import { useNotices } from '../shell/useNotices'

interface Found {
  document: RecipeDocument
  parameters: { exposure: number; temperature: number; tint: number }
  /** How much of both pictures is alike, 0..1. */
  before: number
  after: number
}

/** A family's hero, which stays, and the member that is being made like it. */
export const usePairing = defineStore('pairing', () => {
  const cut = useCut()
  const recipes = useRecipes()
  const notices = useNotices()
  const paste = usePaste()
  const familyId = ref<number | null>(null)
  const memberId = ref<number | null>(null)
  const found = ref<Found | null>(null)
  /** The hero's steps come along. */
  const along = ref(true)
  const skin = ref(0)
  const regions = ref<{ hero: Region | null; member: Region | null }>({ hero: null, member: null })
  const looking = ref(false)

  const family = computed(() => cut.families.find((one) => one.id === familyId.value) ?? cut.families[0] ?? null)
  const hero = computed(() => cut.shots.find((shot) => shot.id === family.value?.hero) ?? null)
  const members = computed(() => cut.shots.filter((shot) => family.value?.shots.includes(shot.id) && shot.id !== family.value.hero))
  const member = computed(() => members.value.find((shot) => shot.id === memberId.value) ?? members.value[0] ?? null)
  /** Frames from their first one that shots are looked at, where somebody has moved there. */
  const places = ref<Record<number, number>>({})
  const middle = (shot: Shot) => shot.record_in + Math.min(shot.length - 1, Math.max(shot.dissolve, Math.floor(shot.length / 2)))

  /** Record frame at which a shot is looked at. */
  const frameOf = (shot: Shot) => (places.value[shot.id] === undefined ? middle(shot) : shot.record_in + Math.min(shot.length - 1, Math.max(0, places.value[shot.id] ?? 0)))
  /** Looks at another frame of a shot; what was proposed of the one before goes. */
  function look(shot: Shot, frame: number) {
    places.value = { ...places.value, [shot.id]: Math.min(shot.length - 1, Math.max(0, Math.round(frame - shot.record_in))) }
    found.value = null
  }

  watch([() => member.value?.id, () => hero.value?.id], drop)

  function drop() {
    found.value = null
    regions.value = { hero: null, member: null }
  }

  function step(by: number) {
    const count = members.value.length
    const at = members.value.findIndex((shot) => shot.id === member.value?.id)
    memberId.value = members.value[(at + by + count) % Math.max(1, count)]?.id ?? null
  }

  async function propose() {
    if (!hero.value || !member.value || looking.value) return
    looking.value = true
    try {
      await recipes.settled()
      found.value = await sendJson<Found>('POST', `/shots/${member.value.id}/match`, {
        hero: hero.value.id,
        recipe: along.value,
        skin: skin.value,
        frame: frameOf(member.value),
        hero_frame: frameOf(hero.value),
        region: regions.value.member,
        hero_region: regions.value.hero,
      })
    } catch (error) {
      notices.trouble(error)
    } finally {
      looking.value = false
    }
  }

  function keep() {
    if (!found.value || !member.value || !hero.value) return
    recipes.change(member.value.recipe, found.value.document, `${member.value.name} matched to ${hero.value.name}`)
    found.value = null
  }

  /** The hero's steps on this member or on all of them, in place of their own; one undo. */
  async function copy(all: boolean) {
    const shots = all ? members.value : member.value ? [member.value] : []
    if (!hero.value) return
    const words = `recipe of ${hero.value.name} on ${shots.length === 1 ? shots[0]?.name : `${shots.length} shots`}`
    if (
      await paste(
        shots.map((shot) => shot.id),
        hero.value.recipe.document.steps,
        true,
        words,
      )
    )
      drop()
  }

  return {
    family,
    hero,
    members,
    member,
    found,
    along,
    skin,
    regions,
    looking,
    frameOf,
    look,
    choose: (id: number) => (familyId.value = id),
    go: (id: number) => (memberId.value = id),
    step,
    propose,
    keep,
    drop,
    copy,
  }
})
