// What runs on the GPU, in GLSL ES 3.00. Places are in pixels, counted from the upper left corner; rows lie in memory
// in that order, so nothing is ever turned upside down.

const HEAD = `#version 300 es
precision highp float;
`

/**
 * A rectangle of the target. `looksAt` is the place in the source that each of its pixels shows, in the source's
 * pixels.
 */
export const RECTANGLE = `${HEAD}
uniform vec2 target;
uniform vec4 dest;
uniform vec2 from, across, down;
out vec2 looksAt;
void main() {
  vec2 share = vec2(gl_VertexID & 1, gl_VertexID >> 1);
  looksAt = from + across * share.x + down * share.y;
  gl_Position = vec4((dest.xy + dest.zw * share) / target * 2.0 - 1.0, 0.0, 1.0);
}`

/**
 * A crop at another size: two neighbours each way, or the mean of all that a pixel covers where `cells` of it are
 * looked at. Premultiplied.
 */
export const FOOTAGE = `${HEAD}
uniform sampler2D source, mask;
uniform vec4 inside;
uniform ivec2 cells;
uniform float opacity;
uniform bool masked;
uniform vec4 maskPlace;
in vec2 looksAt;
out vec4 colour;
void main() {
  vec2 right = dFdx(looksAt), below = dFdy(looksAt);
  vec2 size = vec2(textureSize(source, 0));
  vec3 sum = vec3(0.0);
  for (int y = 0; y < cells.y; y++)
    for (int x = 0; x < cells.x; x++) {
      vec2 part = (vec2(x, y) + 0.5) / vec2(cells) - 0.5;
      sum += texture(source, clamp(looksAt + right * part.x + below * part.y, inside.xy, inside.zw) / size).rgb;
    }
  float alpha = opacity;
  if (masked) alpha = texture(mask, (gl_FragCoord.xy - maskPlace.xy) / maskPlace.zw).a;
  colour = vec4(sum / float(cells.x * cells.y) * alpha, alpha);
}`

/** What was drawn before, premultiplied. */
export const DRAWN = `${HEAD}
uniform sampler2D source;
uniform float opacity;
in vec2 looksAt;
out vec4 colour;
void main() {
  colour = texture(source, looksAt / vec2(textureSize(source, 0))) * opacity;
}`

/** One colour, premultiplied. */
export const FLAT = `${HEAD}
uniform vec4 premultiplied;
out vec4 colour;
void main() {
  colour = premultiplied;
}`

/** A bell along one side. */
export const BELL = `${HEAD}
uniform sampler2D source;
uniform vec2 along;
uniform float deviation;
in vec2 looksAt;
out vec4 colour;
void main() {
  vec2 size = vec2(textureSize(source, 0));
  int reach = int(ceil(3.0 * deviation));
  vec4 sum = vec4(0.0);
  float weights = 0.0;
  for (int i = -reach; i <= reach; i++) {
    float weight = exp(-0.5 * float(i * i) / (deviation * deviation));
    sum += weight * texture(source, clamp(looksAt + along * float(i), vec2(0.5), size - 0.5) / size);
    weights += weight;
  }
  colour = sum / weights;
}`

/**
 * BT.709, limited range, 4:2:0, four samples in each pixel of the target: rows of luma, then rows that hold two of Cb
 * each, then such of Cr. Source: Rec. ITU-R BT.709.
 */
export const TO_PLANES = `${HEAD}
uniform sampler2D source;
uniform ivec2 size;
uniform int half4, rows;
out vec4 samples;
vec3 at(ivec2 place) {
  return texelFetch(source, min(place, size - 1), 0).rgb;
}
float luma(vec3 rgb) {
  return dot(rgb, vec3(0.2126, 0.7152, 0.0722));
}
float difference(ivec2 half2, bool red) {
  ivec2 place = half2 * 2;
  vec3 mean = (at(place) + at(place + ivec2(1, 0)) + at(place + ivec2(0, 1)) + at(place + ivec2(1, 1))) / 4.0;
  float away = red ? (mean.r - luma(mean)) / 1.5748 : (mean.b - luma(mean)) / 1.8556;
  return (128.0 + 224.0 * away) / 255.0;
}
void main() {
  ivec2 place = ivec2(gl_FragCoord.xy);
  if (place.y < size.y) {
    ivec2 first = ivec2(place.x * 4, place.y);
    vec4 four = vec4(luma(at(first)), luma(at(first + ivec2(1, 0))), luma(at(first + ivec2(2, 0))), luma(at(first + ivec2(3, 0))));
    samples = (16.0 + 219.0 * four) / 255.0;
    return;
  }
  int below = place.y - size.y;
  bool red = below >= rows, second = place.x >= half4;
  ivec2 first = ivec2((second ? place.x - half4 : place.x) * 4, 2 * (red ? below - rows : below) + (second ? 1 : 0));
  samples = vec4(difference(first, red), difference(first + ivec2(1, 0), red), difference(first + ivec2(2, 0), red), difference(first + ivec2(3, 0), red));
}`
