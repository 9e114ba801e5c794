import sharp from 'sharp'
import { seededUniform } from '../core/measure/seeded-random'

/** What a photograph shows of an engine's shape. */
export interface EngineLooks {
  readonly steam: boolean
  readonly axles: number
  /** The shell is off: frame, motor and leads are seen. */
  readonly opened?: boolean
}

/**
 * Draws a photograph for the scenario: an engine on the cradle under the lamp. Drawn here, taken from nowhere.
 *
 * @param livery the engine's colour
 * @param looks its outline and wheels
 * @param seed varies angle, light and clutter
 * @returns JPEG bytes
 */
export async function drawPhotograph(
  livery: string,
  { steam, axles, opened = false }: EngineLooks,
  seed: number,
): Promise<Buffer> {
  const uniform = seededUniform(seed)
  const tilt = (uniform() - 0.5) * 5
  const radius = Math.min(52, 270 / axles)
  const wheels = Array.from({ length: axles }, (_, i) => {
    // Two bogies stand at the ends; anything else spreads its axles out.
    const bogies = !steam && axles >= 4
    const side = i < axles / 2 ? 0 : 1
    const x = bogies
      ? 330 + side * 560 + (side === 0 ? i : i - axles + 1) * 2.3 * radius
      : 330 + (i * 560) / (axles - 1)
    return `<circle cx="${x}" cy="${637 - radius}" r="${radius}" fill="#2a2d30"/><circle cx="${x}" cy="${637 - radius}" r="${radius - 8}" fill="none" stroke="#8b8f92" stroke-width="7"/><circle cx="${x}" cy="${637 - radius}" r="10" fill="#a9812f"/>`
  }).join('')
  const body = steam
    ? `<rect x="270" y="390" width="470" height="120" rx="56" fill="${livery}"/><rect x="330" y="315" width="52" height="84" rx="6" fill="#1d1f21"/><path d="M520 392v-26a26 20 0 0 1 52 0v26z" fill="${livery}"/><rect x="730" y="320" width="190" height="200" fill="${livery}"/><rect x="770" y="352" width="90" height="70" fill="#1f2427"/>`
    : `<path d="M270 520V386l60-58h560l58 58v134z" fill="${livery}"/><rect x="352" y="362" width="88" height="58" fill="#1f2427"/><rect x="780" y="362" width="88" height="58" fill="#1f2427"/><rect x="470" y="356" width="280" height="90" fill="#00000026"/>`
  const inside = `<rect x="286" y="478" width="640" height="36" fill="#6f7478"/><rect x="520" y="402" width="150" height="96" rx="10" fill="#8d9296"/><rect x="540" y="420" width="40" height="60" fill="#b5772f"/><circle cx="664" cy="450" r="30" fill="#3a3d40"/><path d="M700 450h120l40 44" stroke="#a9812f" stroke-width="9" fill="none"/><path d="M536 410q-90-60-170 60" stroke="#a33a30" stroke-width="5" fill="none"/><path d="M648 408q60-70 150 60" stroke="#23282d" stroke-width="5" fill="none"/>`
  const clutter = Array.from({ length: 14 }, () => {
    const [x, y] = [60 + uniform() * 1160, 700 + uniform() * 210]
    return `<circle cx="${x}" cy="${y}" r="${5 + uniform() * 7}" fill="#8f8672"/><path d="M${x - 5} ${y}h10" stroke="#5d5646" stroke-width="2"/>`
  }).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1280" height="960"><defs><radialGradient id="lamp" cx="${35 + uniform() * 30}%" cy="22%" r="85%"><stop offset="0" stop-color="#e9dcbf"/><stop offset="0.6" stop-color="#b79f74"/><stop offset="1" stop-color="#5d4c34"/></radialGradient></defs><rect width="1280" height="960" fill="url(#lamp)"/><path d="M0 668h1280v292H0z" fill="#6f5b3d"/><path d="M0 668h1280" stroke="#4d3e28" stroke-width="4"/><g transform="rotate(${tilt} 640 560)"><path d="M210 640h860l-36 62H246z" fill="#3b5a4c"/><rect x="246" y="512" width="720" height="54" fill="#1d1f21"/>${opened ? inside : body}${wheels}<path d="M966 540h44v18h-44z" fill="#3a3d40"/></g>${clutter}<path d="M1010 800l190-96" stroke="#9aa0a4" stroke-width="12" stroke-linecap="round"/><path d="M1000 806l-60 30" stroke="#a33a30" stroke-width="22" stroke-linecap="round"/></svg>`
  return sharp(Buffer.from(svg)).jpeg({ quality: 82 }).toBuffer()
}
