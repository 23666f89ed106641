/**
 * Draws one strand of a ladder: sum + share * weight * (lattice(value) - value), the lattice read
 * tetrahedrally as the core's Lut::Lattice reads one, weights of a smaller raster linearly; of noise the weight is a tile's.
 */

export const VERTEX = `#version 300 es
void main() {
  vec2 corner = vec2(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0);
  gl_Position = vec4(corner, 0.0, 1.0);
}`

export const FRAGMENT = `#version 300 es
precision highp float;
precision highp int;
precision highp sampler2D;
precision highp usampler2D;
precision highp usampler3D;
uniform usampler2D codes;
uniform usampler3D lattice;
uniform usampler2D plane;
uniform usampler2D tile;
uniform sampler2D input_;
uniform sampler2D sum;
uniform bool fromCodes;
uniform bool fromSum;
uniform bool last;
uniform bool marks;
uniform bool noisy;
uniform float reach;
uniform ivec2 laid;
uniform int nodes;
uniform int rows;
uniform int every;
uniform float share;
uniform vec3 startLow;
uniform vec3 startHigh;
uniform vec3 domainLow;
uniform vec3 domainHigh;
uniform vec3 rangeLow;
uniform vec3 rangeHigh;
out vec4 colour;

vec3 node(ivec3 at) { return vec3(texelFetch(lattice, at, 0).rgb) / 65535.0; }

vec3 looked(vec3 value) {
  vec3 place = clamp((value - domainLow) / (domainHigh - domainLow), 0.0, 1.0) * float(nodes - 1);
  ivec3 base = min(ivec3(place), ivec3(nodes - 2));
  vec3 rest = place - vec3(base);

  bool redMost = rest.r >= rest.g && rest.r >= rest.b;
  bool greenMost = !redMost && rest.g >= rest.b;
  bool blueLeast = rest.b <= rest.r && rest.b <= rest.g;
  bool greenLeast = !blueLeast && rest.g <= rest.r;
  ivec3 first = redMost ? ivec3(1, 0, 0) : greenMost ? ivec3(0, 1, 0) : ivec3(0, 0, 1);
  ivec3 last_ = blueLeast ? ivec3(0, 0, 1) : greenLeast ? ivec3(0, 1, 0) : ivec3(1, 0, 0);

  float most = max(rest.r, max(rest.g, rest.b));
  float least = min(rest.r, min(rest.g, rest.b));
  float middle = rest.r + rest.g + rest.b - most - least;
  vec3 mixed = node(base) * (1.0 - most) + node(base + first) * (most - middle)
    + node(base + 1 - last_) * (middle - least) + node(base + 1) * least;
  return rangeLow + mixed * (rangeHigh - rangeLow);
}

float weightAt(ivec2 at) {
  ivec2 size = textureSize(plane, 0);
  if (size == ivec2(1)) return 1.0;
  vec2 place = clamp((vec2(at * every) + 0.5) * vec2(size) / vec2(textureSize(codes, 0)) - 0.5, vec2(0.0), vec2(size - 1));
  ivec2 base = min(ivec2(place), max(size - 2, 0));
  vec2 rest = place - vec2(base);
  ivec2 next = min(base + 1, size - 1);
  float above = mix(float(texelFetch(plane, base, 0).r), float(texelFetch(plane, ivec2(next.x, base.y), 0).r), rest.x);
  float below = mix(float(texelFetch(plane, ivec2(base.x, next.y), 0).r), float(texelFetch(plane, next, 0).r), rest.x);
  return mix(above, below, rest.y) / 65535.0;
}

// A tile laid side by side, from where the picture's corner lies in it.
vec3 noiseAt(ivec2 at) {
  ivec2 size = textureSize(tile, 0);
  return (vec3(texelFetch(tile, (at * every + laid) % size, 0).rgb) / 65535.0 * 2.0 - 1.0) * reach;
}

void main() {
  // textures between rungs begin with the top row, as pictures do; the canvas with the bottom one
  ivec2 at = last ? ivec2(gl_FragCoord.x, float(rows) - gl_FragCoord.y) : ivec2(gl_FragCoord.xy);
  vec3 value = fromCodes ? startLow + vec3(texelFetch(codes, at * every, 0).rgb) / 65535.0 * (startHigh - startLow) : texelFetch(input_, at, 0).rgb;
  vec3 so_far = fromSum ? texelFetch(sum, at, 0).rgb : value;
  vec3 mixed = so_far + share * (noisy ? noiseAt(at) : vec3(weightAt(at))) * (looked(value) - value);
  // as the core's Scopes::Clipping
  bool stripe = ((at.x + at.y) / 4) % 2 == 0;
  if (marks && stripe && max(mixed.r, max(mixed.g, mixed.b)) >= 1022.5 / 1023.0) mixed = vec3(0.77, 0.39, 0.31);
  else if (marks && stripe && max(mixed.r, max(mixed.g, mixed.b)) < 0.5 / 1023.0) mixed = vec3(0.37, 0.56, 0.72);
  colour = vec4(mixed, 1.0);
}`
