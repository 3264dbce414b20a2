/**
 * Linear light to the screen's. The curve by square roots, which stays within 0.002 of the standard one and costs a tenth of its
 * power where there is no graphics processor.
 */
const SHARED = /* glsl */ `
precision highp float;
uniform vec3 lightFactor;
vec3 onScreen(vec3 linear) {
  vec3 c = clamp(linear * lightFactor, 0.0, 1.0);
  vec3 s = sqrt(c);
  vec3 q = sqrt(s);
  return max(vec3(0.0), 0.662002687 * s + 0.68412206 * q - 0.323583601 * sqrt(q) - 0.022541147 * c);
}
const vec3 SUN = vec3(-0.43, 0.5, 0.75);
`;

/** Land, sides and open faces: their paint, shaded so that what lies flat has it unchanged. The paint's fourth part is its grain. */
export const LAND_VERTEX = /* glsl */ `
in vec4 paint;
out vec3 up;
out vec3 place;
out vec4 colour;
void main() {
  colour = paint;
  up = normalize(mat3(modelMatrix) * normal);
  place = (modelMatrix * vec4(position, 1.0)).xyz;
  gl_Position = projectionMatrix * viewMatrix * vec4(place, 1.0);
}`;

export const LAND_FRAGMENT = /* glsl */ `
${SHARED}
in vec3 up;
in vec3 place;
in vec4 colour;
out vec4 pixel;
float speck(vec2 at) { return fract(sin(dot(floor(at), vec2(12.9898, 78.233))) * 43758.5453); }
void main() {
  float shade = 1.0 + 0.55 * (dot(normalize(up), normalize(SUN)) - normalize(SUN).z);
  float fleck = colour.a * (speck(place.xy * 1.3) - 0.5);
  pixel = vec4(onScreen(colour.rgb * (shade + fleck)), 1.0);
}`;

export const WATER_VERTEX = /* glsl */ `
out vec3 place;
out vec3 eye;
void main() {
  place = position;
  // The eye as the piece sees it: the field lies along the piece's own sides, however it is turned.
  eye = (inverse(modelMatrix) * vec4(cameraPosition, 1.0)).xyz;
  gl_Position = projectionMatrix * viewMatrix * modelMatrix * vec4(position, 1.0);
}`;

/**
 * Each ray is bent at the surface and walks to the bed. Daylight comes down steeply and goes back along the ray, so the water
 * that it crosses is the mean of the depth there and of the slanted way: straight down just the depth, which is what the tables
 * of colours are made for.
 */
export const WATER_FRAGMENT = /* glsl */ `
${SHARED}
uniform sampler2D field;
uniform sampler2D lights;
uniform vec2 size;
uniform float deepest;
uniform float surface;
uniform float lowest;
uniform float cell;
uniform vec3 sky;
uniform bool fine;
in vec3 place;
in vec3 eye;
out vec4 pixel;
const float BENT = 1.0 / 1.5;
const int STEPS = 22;
vec2 bedAt(vec2 at) { return texture(field, at / size + 0.5).rg; }
// The upper row of the table is for the bed, the lower for rock, whose coverage counts more.
const float ROCK_FROM = 1.75;
vec3 lightAt(float depth, float coverage) {
  int last = textureSize(lights, 0).x - 1;
  int row = coverage > ROCK_FROM ? 1 : 0;
  float at = clamp(depth / deepest, 0.0, 1.0) * float(last);
  return mix(texelFetch(lights, ivec2(int(at), row), 0).rgb, texelFetch(lights, ivec2(min(int(at) + 1, last), row), 0).rgb, fract(at));
}
// Gloss: what the surface mirrors beyond the little that it mirrors straight down, and a window to the south-east.
vec3 glossed(vec3 seen, vec3 ray) {
  float facing = clamp(-ray.z, 0.0, 1.0);
  float off = 1.0 - facing;
  float gloss = 0.96 * off * off * off * off * off;
  vec3 mirrored = reflect(ray, vec3(0.0, 0.0, 1.0));
  float window = smoothstep(0.965, 0.995, dot(mirrored, normalize(vec3(0.35, 0.72, 0.6))));
  return onScreen(mix(seen, sky, gloss) + 0.22 * window * off);
}
void main() {
  vec2 here = bedAt(place.xy);
  if (here.g < 0.5 || here.r >= surface) discard;
  vec3 ray = normalize(place - eye);
  vec3 down = refract(ray, vec3(0.0, 0.0, 1.0), BENT);
  float steep = max(-down.z, 0.2);
  if (!fine) {
    // While it is turned: from the depth here to the depth where that ends, twice. Right on even beds, near enough on others.
    float deep = surface - here.r;
    deep = surface - bedAt(place.xy + down.xy * deep / steep).r;
    vec2 end = bedAt(place.xy + down.xy * deep / steep);
    deep = max(0.0, surface - end.r);
    pixel = vec4(glossed(lightAt(0.5 * (deep + deep / steep), end.g), ray), 1.0);
    return;
  }
  float longest = (surface - lowest) / steep;
  float walked = 0.0;
  float before = 0.0;
  for (int i = 1; i <= STEPS; i++) {
    before = walked;
    walked = longest * float(i) / float(STEPS);
    vec3 at = place + down * walked;
    if (at.z <= bedAt(at.xy).r) break;
  }
  for (int i = 0; i < 6; i++) {
    float middle = 0.5 * (before + walked);
    vec3 at = place + down * middle;
    if (at.z <= bedAt(at.xy).r) walked = middle; else before = middle;
  }
  vec3 hit = place + down * walked;
  vec2 under = bedAt(hit.xy);
  float depth = max(0.0, surface - under.r);
  float slant = max(depth, walked);
  vec2 slope = vec2(bedAt(hit.xy + vec2(cell, 0.0)).r - bedAt(hit.xy - vec2(cell, 0.0)).r,
                    bedAt(hit.xy + vec2(0.0, cell)).r - bedAt(hit.xy - vec2(0.0, cell)).r) / (2.0 * cell);
  vec3 up = normalize(vec3(-slope, 1.0));
  float relief = exp(-0.12 * depth);
  float shade = 1.0 + 0.4 * relief * (dot(up, normalize(SUN)) - normalize(SUN).z);
  pixel = vec4(glossed(lightAt(0.5 * (depth + slant), under.g) * shade, ray), 1.0);
}`;
