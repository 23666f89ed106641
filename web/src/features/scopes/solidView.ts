/** Turns and draws points and lines of the colour solid on the graphics processor. */

const VERTEX = `#version 300 es
in vec3 at;
in vec4 colour;
uniform vec2 turn;
uniform vec2 scale;
uniform float size;
uniform float zoom;
uniform float boost;
out vec4 tint;
void main() {
  float c = cos(turn.x), s = sin(turn.x), d = cos(turn.y), t = sin(turn.y);
  vec2 flat_ = vec2(c * at.x - s * at.y, s * at.x + c * at.y);
  vec3 seen = vec3(flat_.x, d * at.z + t * flat_.y, d * flat_.y - t * at.z);
  float near = 1.0 / (1.0 + seen.z * 0.18);
  gl_Position = vec4(seen.xy * near * scale * zoom, seen.z * 0.3, 1.0);
  gl_PointSize = size * near * sqrt(zoom) * (0.55 + colour.a);
  float grey = dot(colour.rgb, vec3(0.3, 0.6, 0.1));
  tint = vec4(clamp(mix(vec3(grey), colour.rgb, boost), 0.0, 1.0), 0.35 + 0.65 * colour.a);
}`

const FRAGMENT = `#version 300 es
precision mediump float;
in vec4 tint;
out vec4 shown;
void main() { shown = vec4(tint.rgb * tint.a, tint.a); }`

/** Share of the shorter edge that half an axis takes, times two. */
export const FILL = 0.68

export interface SolidPoints {
  /** Three coordinates a point, about -1..1, the third upwards. */
  points: Float32Array
  /** Red, green, blue and density, 0..255. */
  colours: Uint8Array
}

export interface Turn {
  yaw: number
  pitch: number
  /** How much larger it is drawn than it fits. */
  zoom?: number
}

/** How much larger than fitting it may be drawn. */
export const ZOOM = { least: 0.6, most: 6 }
/** Share of the shorter edge that a point of the plainest size takes. */
const POINT = FILL / 42

/** Where a point is seen, -1..1 across and up, and how far. */
export function seen([x, y, z]: readonly [number, number, number], { yaw, pitch, zoom = 1 }: Turn): [number, number, number] {
  const across = Math.cos(yaw) * x - Math.sin(yaw) * y
  const away = Math.sin(yaw) * x + Math.cos(yaw) * y
  const up = Math.cos(pitch) * z + Math.sin(pitch) * away
  const far = Math.cos(pitch) * away - Math.sin(pitch) * z
  const near = 1 / (1 + far * 0.18)
  return [across * near * zoom, up * near * zoom, far]
}

/**
 * The point that is seen at a place: of those whose drawn disc covers it the nearest to the
 * eye; where none does, the nearest to the place within reach; -1 without one.
 *
 * @param radius of a drawn point, in the units of places
 */
export function pointAt({ points }: SolidPoints, turn: Turn, place: [number, number], reach: number, radius = reach): number {
  let [covering, depth] = [-1, Infinity]
  let [near, least] = [-1, reach]
  for (let index = 0; index < points.length / 3; index++) {
    const [x, y, far] = seen([points[index * 3] ?? 0, points[index * 3 + 1] ?? 0, points[index * 3 + 2] ?? 0], turn)
    const off = Math.hypot(x - place[0], y - place[1])
    if (off <= radius && far < depth) [covering, depth] = [index, far]
    if (off < least) [near, least] = [index, off]
  }
  return covering >= 0 ? covering : near
}

/** @returns null where there is no WebGL 2 */
export function makeSolidView(canvas: HTMLCanvasElement) {
  const gl = canvas.getContext('webgl2', { alpha: true, antialias: true, premultipliedAlpha: true })
  const program = gl?.createProgram()
  if (!gl || !program) return null
  for (const [kind, text] of [
    [gl.VERTEX_SHADER, VERTEX],
    [gl.FRAGMENT_SHADER, FRAGMENT],
  ] as const) {
    const part = gl.createShader(kind)
    if (!part) return null
    gl.shaderSource(part, text)
    gl.compileShader(part)
    gl.attachShader(program, part)
  }
  gl.linkProgram(program)
  if (!gl.getProgramParameter(program, gl.LINK_STATUS)) return null
  gl.useProgram(program)
  gl.enable(gl.BLEND)
  gl.enable(gl.DEPTH_TEST)
  gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA)
  const buffers = [gl.createBuffer(), gl.createBuffer()]
  const place = (name: string) => gl.getUniformLocation(program, name)
  const [at, colour] = ['at', 'colour'].map((name) => gl.getAttribLocation(program, name)) as [number, number]
  gl.enableVertexAttribArray(at)
  gl.enableVertexAttribArray(colour)

  function load(points: Float32Array, colours: Uint8Array) {
    gl?.bindBuffer(gl.ARRAY_BUFFER, buffers[0] ?? null)
    gl?.bufferData(gl.ARRAY_BUFFER, points, gl.DYNAMIC_DRAW)
    gl?.vertexAttribPointer(at, 3, gl.FLOAT, false, 0, 0)
    gl?.bindBuffer(gl.ARRAY_BUFFER, buffers[1] ?? null)
    gl?.bufferData(gl.ARRAY_BUFFER, colours, gl.DYNAMIC_DRAW)
    gl?.vertexAttribPointer(colour, 4, gl.UNSIGNED_BYTE, true, 0, 0)
  }

  return {
    /**
     * @param bounds lines of the gamut; legal: those of the legal range, drawn in another grey
     * @param size of points, 1 for the plainest
     */
    draw(solid: SolidPoints, bounds: [number, number, number][][], legal: [number, number, number][][], turn: Turn, boost: number, size: number) {
      gl.viewport(0, 0, canvas.width, canvas.height)
      gl.clearColor(0, 0, 0, 0)
      gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT)
      const edge = Math.min(canvas.width, canvas.height) * FILL
      gl.uniform2f(place('turn'), turn.yaw, turn.pitch)
      gl.uniform2f(place('scale'), edge / canvas.width, edge / canvas.height)
      gl.uniform1f(place('zoom'), turn.zoom ?? 1)
      gl.uniform1f(place('size'), Math.max(2, Math.min(canvas.width, canvas.height) * POINT * size))
      gl.uniform1f(place('boost'), 1)
      for (const [lines, shade] of [
        [bounds, [110, 110, 110, 120]],
        [legal, [184, 160, 90, 160]],
      ] as const) {
        for (const line of lines) {
          load(new Float32Array(line.flat()), new Uint8Array(line.flatMap(() => shade)))
          gl.drawArrays(gl.LINE_STRIP, 0, line.length)
        }
      }
      gl.uniform1f(place('boost'), boost)
      load(solid.points, solid.colours)
      gl.drawArrays(gl.POINTS, 0, solid.points.length / 3)
    },
  }
}
