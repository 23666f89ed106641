/** Draws 16-bit codes through a lattice of 16-bit codes, tetrahedrally, as the core's Lut::Lattice reads one. */

export const VERTEX = `#version 300 es
void main() {
  vec2 corner = vec2(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0);
  gl_Position = vec4(corner, 0.0, 1.0);
}`

export const FRAGMENT = `#version 300 es
precision highp float;
precision highp int;
precision highp usampler2D;
precision highp usampler3D;
uniform usampler2D codes;
uniform usampler3D lattice;
uniform int nodes;
uniform int rows;
uniform vec3 low;
uniform vec3 high;
uniform bool marks;
out vec4 colour;

vec3 node(ivec3 at) { return vec3(texelFetch(lattice, at, 0).rgb) / 65535.0; }

void main() {
  ivec2 at = ivec2(gl_FragCoord.x, float(rows) - gl_FragCoord.y);
  vec3 code = vec3(texelFetch(codes, at, 0).rgb) / 65535.0;
  vec3 place = clamp((code - low) / (high - low), 0.0, 1.0) * float(nodes - 1);
  ivec3 base = min(ivec3(place), ivec3(nodes - 2));
  vec3 rest = place - vec3(base);

  bool redMost = rest.r >= rest.g && rest.r >= rest.b;
  bool greenMost = !redMost && rest.g >= rest.b;
  bool blueLeast = rest.b <= rest.r && rest.b <= rest.g;
  bool greenLeast = !blueLeast && rest.g <= rest.r;
  ivec3 first = redMost ? ivec3(1, 0, 0) : greenMost ? ivec3(0, 1, 0) : ivec3(0, 0, 1);
  ivec3 last = blueLeast ? ivec3(0, 0, 1) : greenLeast ? ivec3(0, 1, 0) : ivec3(1, 0, 0);

  float most = max(rest.r, max(rest.g, rest.b));
  float least = min(rest.r, min(rest.g, rest.b));
  float middle = rest.r + rest.g + rest.b - most - least;
  vec3 mixed = node(base) * (1.0 - most) + node(base + first) * (most - middle)
    + node(base + 1 - last) * (middle - least) + node(base + 1) * least;
  // as the core's Scopes::Clipping
  bool stripe = ((at.x + at.y) / 4) % 2 == 0;
  if (marks && stripe && max(mixed.r, max(mixed.g, mixed.b)) >= 1022.5 / 1023.0) mixed = vec3(0.77, 0.39, 0.31);
  else if (marks && stripe && max(mixed.r, max(mixed.g, mixed.b)) < 0.5 / 1023.0) mixed = vec3(0.37, 0.56, 0.72);
  colour = vec4(mixed, 1.0);
}`
