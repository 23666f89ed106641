import { FRAGMENT, VERTEX } from './liveShader'

export interface SourceFrame {
  frame: number
  width: number
  height: number
  /** 16-bit red, green, blue, pixel by pixel. */
  codes: Uint16Array
}

function shader(gl: WebGL2RenderingContext, kind: number, text: string): WebGLShader | null {
  const made = gl.createShader(kind)
  if (!made) return null
  gl.shaderSource(made, text)
  gl.compileShader(made)
  return made
}

/** A texture that is read texel by texel. */
function texture(gl: WebGL2RenderingContext, target: number, unit: number): WebGLTexture | null {
  const made = gl.createTexture()
  gl.activeTexture(gl.TEXTURE0 + unit)
  gl.bindTexture(target, made)
  for (const name of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER]) gl.texParameteri(target, name, gl.NEAREST)
  for (const name of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T, gl.TEXTURE_WRAP_R]) gl.texParameteri(target, name, gl.CLAMP_TO_EDGE)
  return made
}

/**
 * Draws a source frame through look-up tables on the graphics processor.
 *
 * @returns null where there is no WebGL 2
 */
export function makeLivePicture() {
  const canvas = new OffscreenCanvas(1, 1)
  const gl = canvas.getContext('webgl2', { alpha: false, antialias: false, depth: false })
  const program = gl?.createProgram()
  if (!gl || !program) return null
  for (const [kind, text] of [[gl.VERTEX_SHADER, VERTEX], [gl.FRAGMENT_SHADER, FRAGMENT]] as const) {
    const part = shader(gl, kind, text)
    if (part) gl.attachShader(program, part)
  }
  gl.linkProgram(program)
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) return null
  gl.useProgram(program)
  gl.pixelStorei(gl.UNPACK_ALIGNMENT, 2)
  texture(gl, gl.TEXTURE_2D, 0)
  texture(gl, gl.TEXTURE_3D, 1)
  const place = (name: string) => gl.getUniformLocation(program, name)
  gl.uniform1i(place('codes'), 0)
  gl.uniform1i(place('lattice'), 1)
  let frame: number | null = null
  let held: Uint16Array | null = null

  return {
    /** The record frame that can be drawn. */
    frame: () => frame,
    setSource(source: SourceFrame) {
      canvas.width = source.width
      canvas.height = source.height
      gl.viewport(0, 0, source.width, source.height)
      gl.activeTexture(gl.TEXTURE0)
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGB16UI, source.width, source.height, 0, gl.RGB_INTEGER, gl.UNSIGNED_SHORT, source.codes)
      gl.uniform1i(place('rows'), source.height)
      frame = source.frame
    },
    /**
     * @param lattice 16-bit red, green, blue on the nodes, red fastest
     * @param domain lowest and highest red, green, blue code it covers
     * @param marks hatch what has come to an end of the codes
     */
    draw(lattice: Uint16Array, nodes: number, [low, high]: [number[], number[]], marks = false): ImageBitmap {
      gl.activeTexture(gl.TEXTURE1)
      if (held !== lattice) gl.texImage3D(gl.TEXTURE_3D, 0, gl.RGB16UI, nodes, nodes, nodes, 0, gl.RGB_INTEGER, gl.UNSIGNED_SHORT, lattice)
      held = lattice
      gl.uniform1i(place('nodes'), nodes)
      gl.uniform3fv(place('low'), low)
      gl.uniform3fv(place('high'), high)
      gl.uniform1i(place('marks'), marks ? 1 : 0)
      gl.drawArrays(gl.TRIANGLES, 0, 3)
      return canvas.transferToImageBitmap()
    },
  }
}

export type LivePicture = NonNullable<ReturnType<typeof makeLivePicture>>
