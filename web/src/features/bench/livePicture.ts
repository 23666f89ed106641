import type { Rung, Strand } from '@/api/ladder'
import { words, type Answer } from '@/api/answer'
import { floatTarget, makeProgram, texture } from './liveGl'
import { makeHeldTextures } from './liveTextures'

/** What a ladder is climbed from. */
export interface StartPicture {
  /** What it is of; another one has another. */
  key: string
  width: number
  height: number
  /** 16-bit red, green, blue, pixel by pixel. */
  codes: Uint16Array
  /** Red, green, blue that 0 and 65535 stand for. */
  range: [number[], number[]]
}

/** Slow screens draw every second pixel, across and down. */
const COARSE = 2
const PACED = 3 // pictures it is judged by

const [CODES, LATTICE, PLANE, INPUT, SUM, TILE] = [0, 1, 2, 3, 4, 6]
const ALL: StartPicture['range'] = [
  [0, 0, 0],
  [1, 1, 1],
]

/**
 * Draws a picture up a ladder on the graphics processor: from a start picture, rung after
 * rung, through float textures. The core's Grade::Ladder says what a ladder is.
 *
 * @param moment milliseconds that drawing a picture may take
 * @returns null where there is no WebGL 2 that draws into float textures
 */
export function makeLivePicture(moment: number) {
  const canvas = new OffscreenCanvas(1, 1)
  const gl = canvas.getContext('webgl2', { alpha: false, antialias: false, depth: false })
  const program = gl?.getExtension('EXT_color_buffer_float') ? makeProgram(gl) : null
  return gl && program ? ladderOn(canvas, gl, program, moment) : null
}

function ladderOn(canvas: OffscreenCanvas, gl: WebGL2RenderingContext, program: WebGLProgram, moment: number) {
  const place = (name: string) => gl.getUniformLocation(program, name)
  Object.entries({ codes: CODES, lattice: LATTICE, plane: PLANE, input_: INPUT, sum: SUM, tile: TILE }).forEach(([name, unit]) => gl.uniform1i(place(name), unit))
  const start = texture(gl, gl.TEXTURE_2D, CODES)
  const textures = makeHeldTextures(gl)
  const nothing = texture(gl, gl.TEXTURE_2D, PLANE)
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.R16UI, 1, 1, 0, gl.RED_INTEGER, gl.UNSIGNED_SHORT, new Uint16Array([65_535]))
  const quiet = texture(gl, gl.TEXTURE_2D, TILE)
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGB16UI, 1, 1, 0, gl.RGB_INTEGER, gl.UNSIGNED_SHORT, new Uint16Array(4))
  let targets: { texture: WebGLTexture | null; buffer: WebGLFramebuffer | null }[] = []
  let held: StartPicture | null = null
  /** Pixels of the start, across and down, for one that is drawn. */
  let every = 1
  let times: number[] = []

  const bind = (unit: number, target: number, made: WebGLTexture | null) => {
    gl.activeTexture(gl.TEXTURE0 + unit)
    gl.bindTexture(target, made)
  }

  function resize(width: number, height: number) {
    if (canvas.width === width && canvas.height === height) return
    canvas.width = width
    canvas.height = height
    gl.viewport(0, 0, width, height)
    for (const target of targets) {
      gl.deleteTexture(target.texture)
      gl.deleteFramebuffer(target.buffer)
    }
    targets = []
  }

  function prepareTargets(count: number) {
    while (targets.length < count) targets.push(floatTarget(gl, canvas.width, canvas.height))
  }

  /** By the quickest of the latest: what comes first, and what has just come, takes longer. */
  function pace(milliseconds: number) {
    times.push(milliseconds)
    if (times.length < PACED) return
    const quickest = Math.min(...times)
    times = times.slice(1)
    const next = quickest > moment ? COARSE : every === COARSE && quickest * COARSE ** 2 < moment ? 1 : every
    if (next !== every) times = []
    every = next
  }

  /** One strand: onto a target, or where there is none onto the canvas. */
  function pass(strand: Strand, nodes: number, from: number | null, sum: number | null, onto: number | null, marks: boolean) {
    bind(LATTICE, gl.TEXTURE_3D, textures.use(strand.lattice))
    bind(PLANE, gl.TEXTURE_2D, strand.weight ? textures.use(strand.weight.name) : nothing)
    bind(TILE, gl.TEXTURE_2D, strand.noise ? textures.use(strand.noise.name) : quiet)
    gl.uniform1i(place('noisy'), strand.noise ? 1 : 0)
    if (strand.noise) {
      gl.uniform1f(place('reach'), strand.noise.reach)
      gl.uniform2iv(place('laid'), strand.noise.at)
    }
    // a texture that is drawn into must not be bound, wanted or not
    bind(INPUT, gl.TEXTURE_2D, from === null ? null : (targets[from]?.texture ?? null))
    bind(SUM, gl.TEXTURE_2D, sum === null ? null : (targets[sum]?.texture ?? null))
    gl.bindFramebuffer(gl.FRAMEBUFFER, onto === null ? null : (targets[onto]?.buffer ?? null))
    gl.uniform1i(place('fromCodes'), from === null ? 1 : 0)
    gl.uniform1i(place('fromSum'), sum === null ? 0 : 1)
    gl.uniform1i(place('last'), onto === null ? 1 : 0)
    gl.uniform1i(place('marks'), marks && onto === null ? 1 : 0)
    gl.uniform1i(place('nodes'), nodes)
    gl.uniform1f(place('share'), strand.share)
    for (const [name, [low, high]] of [
      ['domain', strand.domain],
      ['range', strand.range],
    ] as const) {
      gl.uniform3fv(place(`${name}Low`), low)
      gl.uniform3fv(place(`${name}High`), high)
    }
    gl.drawArrays(gl.TRIANGLES, 0, 3)
  }

  return {
    /** Of what picture the start is that it holds. */
    start: () => held?.key ?? null,
    setStart(next: StartPicture) {
      held = next
      bind(CODES, gl.TEXTURE_2D, start)
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGB16UI, next.width, next.height, 0, gl.RGB_INTEGER, gl.UNSIGNED_SHORT, next.codes)
      const [low, high] = next.range
      gl.uniform3fv(place('startLow'), low)
      gl.uniform3fv(place('startHigh'), high)
    },
    /** What it drew last has fewer pixels than the start. */
    reduces: () => held !== null && canvas.width < held.width,
    /** Digests of lattices and weights that need not be sent again. */
    holds: () => textures.names(),
    /** Takes what came with rungs. */
    take(rungs: Rung[], nodes: number, parts: Answer['parts']) {
      for (const strand of rungs.flat()) {
        const [lattice, plane] = [parts[strand.lattice], strand.weight && parts[strand.weight.name]]
        if (lattice) textures.keepLattice(strand.lattice, words(lattice), nodes)
        const tile = strand.noise && parts[strand.noise.name]
        if (strand.noise && tile) textures.keepTile(strand.noise.name, words(tile), strand.noise.edge)
        if (strand.weight && plane) textures.keepPlane(strand.weight, words(plane))
      }
    },
    /** Whether it holds all that rungs name. */
    can: (rungs: Rung[]) => rungs.flat().every((strand) => textures.has(strand.lattice) && (!strand.weight || textures.has(strand.weight.name)) && (!strand.noise || textures.has(strand.noise.name))),
    /** @param marks hatch what has come to an end of the codes */
    draw(rungs: Rung[], nodes: number, marks = false): ImageBitmap {
      const began = performance.now()
      resize(Math.floor((held?.width ?? 1) / every), Math.floor((held?.height ?? 1) / every))
      gl.uniform1i(place('rows'), canvas.height)
      gl.uniform1i(place('every'), every)
      prepareTargets(rungs.flat().length > 1 ? 3 : 0)
      let from: number | null = null
      rungs.forEach((rung, step) => {
        let sum: number | null = null
        rung.forEach((strand, index) => {
          const last = step === rungs.length - 1 && index === rung.length - 1
          const onto: number | null = last ? null : ([0, 1, 2].find((target) => target !== from && target !== sum) ?? 0)
          pass(strand, nodes, from, sum, onto, marks)
          sum = onto
        })
        from = sum
      })
      const drawn = canvas.transferToImageBitmap()
      pace(performance.now() - began)
      return drawn
    },
  }
}

/** A frame of a clip as decoded. */
export const sourceStart = (key: string, width: number, height: number, codes: Uint16Array): StartPicture => ({ key, width, height, codes, range: ALL })
