/** Linear light to screen bytes, and a height out of the field's picture. */
const SHARED = /* glsl */ `
precision highp float;
uniform vec3 lightFactor;
vec3 onScreen(vec3 linear) {
  vec3 c = clamp(linear * lightFactor, 0.0, 1.0);
  return mix(12.92 * c, 1.055 * pow(c, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, c));
}
const vec3 SUN = vec3(-0.43, 0.5, 0.75);
`;

/** Land and sides: the painted colour, shaded so that what lies flat has it unchanged. */
export const LAND_VERTEX = /* glsl */ `
out vec3 up;
out vec3 place;
void main() {
  up = normalize(mat3(modelMatrix) * normal);
  place = (modelMatrix * vec4(position, 1.0)).xyz;
  gl_Position = projectionMatrix * viewMatrix * vec4(place, 1.0);
}`;

export const LAND_FRAGMENT = /* glsl */ `
${SHARED}
uniform vec3 colour;
uniform float grain;
in vec3 up;
in vec3 place;
out vec4 pixel;
float speck(vec2 at) { return fract(sin(dot(floor(at), vec2(12.9898, 78.233))) * 43758.5453); }
void main() {
  float shade = 1.0 + 0.55 * (dot(normalize(up), normalize(SUN)) - normalize(SUN).z);
  float fleck = grain * (speck(place.xy * 1.3) - 0.5);
  pixel = vec4(onScreen(colour * (shade + fleck)), 1.0);
}`;

/** The open face of the water at a cut edge: looked into from the side there is no bed behind the surface, only more water. */
export const FACE_FRAGMENT = /* glsl */ `
${SHARED}
uniform sampler2D lights;
uniform float deepest;
uniform float surface;
in vec3 up;
in vec3 place;
out vec4 pixel;
void main() {
  float at = clamp(0.55 + 0.45 * (surface - place.z) / deepest, 0.0, 1.0) * float(textureSize(lights, 0).x - 1);
  vec3 light = mix(texelFetch(lights, ivec2(int(at), 0), 0).rgb, texelFetch(lights, ivec2(min(int(at) + 1, textureSize(lights, 0).x - 1), 0), 0).rgb, fract(at));
  pixel = vec4(onScreen(light * 0.94), 1.0);
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
in vec3 place;
in vec3 eye;
out vec4 pixel;
const float BENT = 1.0 / 1.5;
const int STEPS = 22;
vec2 bedAt(vec2 at) { return texture(field, at / size + 0.5).rg; }
vec3 lightAt(float depth) {
  int last = textureSize(lights, 0).x - 1;
  float at = clamp(depth / deepest, 0.0, 1.0) * float(last);
  return mix(texelFetch(lights, ivec2(int(at), 0), 0).rgb, texelFetch(lights, ivec2(min(int(at) + 1, last), 0), 0).rgb, fract(at));
}
void main() {
  vec2 here = bedAt(place.xy);
  if (here.g < 0.5 || here.r >= surface) discard;
  vec3 ray = normalize(place - eye);
  vec3 down = refract(ray, vec3(0.0, 0.0, 1.0), BENT);
  float longest = (surface - lowest) / max(-down.z, 0.2);
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
  float depth = max(0.0, surface - bedAt(hit.xy).r);
  float slant = max(depth, walked);
  vec2 slope = vec2(bedAt(hit.xy + vec2(cell, 0.0)).r - bedAt(hit.xy - vec2(cell, 0.0)).r,
                    bedAt(hit.xy + vec2(0.0, cell)).r - bedAt(hit.xy - vec2(0.0, cell)).r) / (2.0 * cell);
  vec3 up = normalize(vec3(-slope, 1.0));
  float relief = exp(-0.12 * depth);
  float shade = 1.0 + 0.4 * relief * (dot(up, normalize(SUN)) - normalize(SUN).z);
  vec3 seen = lightAt(0.5 * (depth + slant)) * shade;
  // Gloss: what the surface mirrors beyond the little that it mirrors straight down, and a window to the south-east.
  float facing = clamp(-ray.z, 0.0, 1.0);
  float gloss = 0.96 * pow(1.0 - facing, 5.0);
  vec3 mirrored = reflect(ray, vec3(0.0, 0.0, 1.0));
  float window = smoothstep(0.965, 0.995, dot(mirrored, normalize(vec3(0.35, 0.72, 0.6))));
  pixel = vec4(onScreen(mix(seen, sky, gloss) + 0.22 * window * (1.0 - facing)), 1.0);
}`;
