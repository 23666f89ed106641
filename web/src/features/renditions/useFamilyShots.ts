import type { Shot } from '@/api/cut'
import { useCut } from '../cut/useCut'

/** The shots of a shot's family, itself among them. */
export function useFamilyShots() {
  const cut = useCut()
  return { of: (shot: Shot): Shot[] => (shot.family === null ? [shot] : cut.shots.filter((one) => one.family === shot.family)) }
}
