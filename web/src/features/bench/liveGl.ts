import { FRAGMENT, VERTEX } from './liveShader'

function shader(gl: WebGL2RenderingContext, kind: number, text: string): WebGLShader | null {
  const made = gl.createShader(kind)
  if (!made) return null
  gl.shaderSource(made, text)
  gl.compileShader(made)
  return made
}

/** A texture that is read texel by texel. */
export function texture(gl: WebGL2RenderingContext, target: number, unit: number): WebGLTexture | null {
  const made = gl.createTexture()
  gl.activeTexture(gl.TEXTURE0 + unit)
  gl.bindTexture(target, made)
  for (const name of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER]) gl.texParameteri(target, name, gl.NEAREST)
  for (const name of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T, gl.TEXTURE_WRAP_R]) gl.texParameteri(target, name, gl.CLAMP_TO_EDGE)
  return made
}

/** A float texture to draw into. */
export function floatTarget(gl: WebGL2RenderingContext, width: number, height: number) {
  const made = texture(gl, gl.TEXTURE_2D, 5)
  gl.texStorage2D(gl.TEXTURE_2D, 1, gl.RGBA32F, width, height)
  const buffer = gl.createFramebuffer()
  gl.bindFramebuffer(gl.FRAMEBUFFER, buffer)
  gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, made, 0)
  gl.bindTexture(gl.TEXTURE_2D, null)
  return { texture: made, buffer }
}

/** The program that draws one strand, in use; null where it cannot be made. */
export function makeProgram(gl: WebGL2RenderingContext): WebGLProgram | null {
  const program = gl.createProgram()
  for (const [kind, text] of [
    [gl.VERTEX_SHADER, VERTEX],
    [gl.FRAGMENT_SHADER, FRAGMENT],
  ] as const) {
    const part = shader(gl, kind, text)
    if (part) gl.attachShader(program, part)
  }
  gl.linkProgram(program)
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) return null
  gl.useProgram(program)
  gl.pixelStorei(gl.UNPACK_ALIGNMENT, 2)
  return program
}
