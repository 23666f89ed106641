import type { Cut, Shot, Wash } from '@/api/cut'
import type { Clip } from '@/api/media'
import type { Project } from '@/api/project'
import type { Recipe } from '@/api/recipe'

/** A small cut as the server would answer it. */

export const project = (change: Partial<Project> = {}): Project => ({
  id: 1,
  name: 'Trial',
  rate: '24/1',
  width: 960,
  height: 540,
  working_space: 'acescct',
  space: {
    id: 'acescct',
    label: 'ACEScct',
    about: '',
    log: 'acescct',
    scene: true,
    black: 0.073,
    middle: 0.414,
    white: 0.785,
    pivots: [
      [-8, 0.05],
      [0, 0.48],
      [8, 1.1],
    ],
  },
  targets: [{ id: 'television', name: 'Television', encoding: 'rec709-bt1886', rendering: 'sdr-video-1.0', limit: null, lut: null, expects: null, strength: null, rendition: null, leads: false, label: 'BT.709' }],
  canvas: '2.4',
  fixed: true,
  stamp: 's',
  turn: 0,
  head: null,
  undo: null,
  redo: null,
  ...change,
})

export const recipe = (id: number, revision = 0, exposure?: number): Recipe => ({
  id,
  shot: id,
  wash: null,
  family: null,
  place: null,
  name: 'First light',
  revision,
  document: { steps: exposure === undefined ? [] : [step(exposure)] },
})

export const step = (exposure: number) => ({ id: 'a', kind: 'balance', name: 'Balance', enabled: true, strength: 1, parameters: { exposure } })

const clip = { id: 1, path: 'a.mov', name: 'a.mov', status: 'ready', encoding: 'acescct', rate: '24/1', start_frames: 0, drop: false, pace: 'frames' } as Clip

export const shot = (id: number, record_in: number, length: number, dissolve = 0): Shot => ({
  id,
  name: `${id}`,
  scene: 'one',
  position: id,
  source_in: 0,
  record_in,
  length,
  dissolve,
  wipe: null,
  manner: {},
  crossover: false,
  speed: 1,
  phase: 0,
  clock: 0,
  link: null,
  head: 0,
  tail: 0,
  clip,
  recipe: recipe(id),
  family: null,
  flag: null,
  note: '',
  poster: null,
  worked: null,
  versions: [{ id, name: 'First light', revision: 0 }],
})

export const wash = (id: number, change: Partial<Wash> = {}): Wash => ({ id, name: 'Warm', from: null, to: null, enabled: true, recipe: { ...recipe(100 + id), shot: null }, ...change })

export const cut = (): Cut => ({
  id: 5,
  name: 'Cut 1',
  edition: 0,
  reference: null,
  start: '01:00:00:00',
  start_frames: 86_400,
  drop: false,
  project: project(),
  length: 30,
  shots: [shot(1, 0, 12), shot(2, 12, 18, 4)],
  washes: [],
  families: [],
})
