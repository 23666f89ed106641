import type { WeightName } from '@/api/ladder'
import { texture } from './liveGl'

const MOST_BYTES = 96 * 1024 * 1024
const MOST_NAMED = 240

/** Lattices and weights by their digests, the latest of them, on the graphics processor. */
export function makeHeldTextures(gl: WebGL2RenderingContext) {
  const held = new Map<string, { made: WebGLTexture | null; bytes: number }>()
  let bytes = 0

  function keep(name: string, made: WebGLTexture | null, size: number) {
    held.set(name, { made, bytes: size })
    bytes += size
    for (const [oldest, { made: old, bytes: less }] of held) {
      if (bytes <= MOST_BYTES || oldest === name) break
      gl.deleteTexture(old)
      held.delete(oldest)
      bytes -= less
    }
  }

  return {
    has: (name: string) => held.has(name),
    /** The latest, oldest first. */
    names: () => [...held.keys()].slice(-MOST_NAMED),
    /** Of a name that is held. */
    use(name: string): WebGLTexture | null {
      const found = held.get(name)
      if (!found) return null
      held.delete(name)
      held.set(name, found)
      return found.made
    },
    /** @param codes 16-bit red, green, blue on the nodes, red fastest */
    keepLattice(name: string, codes: Uint16Array, nodes: number) {
      if (held.has(name)) return
      const made = texture(gl, gl.TEXTURE_3D, 1)
      gl.texImage3D(gl.TEXTURE_3D, 0, gl.RGB16UI, nodes, nodes, nodes, 0, gl.RGB_INTEGER, gl.UNSIGNED_SHORT, codes)
      keep(name, made, codes.byteLength)
    },
    /** @param codes 16-bit red, green, blue, pixel by pixel */
    keepTile(name: string, codes: Uint16Array, edge: number) {
      if (held.has(name)) return
      const made = texture(gl, gl.TEXTURE_2D, 6)
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGB16UI, edge, edge, 0, gl.RGB_INTEGER, gl.UNSIGNED_SHORT, codes)
      keep(name, made, codes.byteLength)
    },
    /** @param codes 16-bit, pixel by pixel */
    keepPlane({ name, width, height }: WeightName, codes: Uint16Array) {
      if (held.has(name)) return
      const made = texture(gl, gl.TEXTURE_2D, 2)
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.R16UI, width, height, 0, gl.RED_INTEGER, gl.UNSIGNED_SHORT, codes)
      keep(name, made, codes.byteLength)
    },
  }
}
