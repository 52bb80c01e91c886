/** The zone this computer is set to. */
export const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone

/** What a browser that does not list them is sure to know. */
const few = [
  'Europe/Berlin',
  'Europe/London',
  'America/New_York',
  'America/Los_Angeles',
  'Asia/Tokyo',
  'Australia/Sydney',
]

const all = (): string[] => (Intl.supportedValuesOf as typeof Intl.supportedValuesOf | undefined)?.('timeZone') ?? few

let known: Map<string, string[]> | undefined

/** Every zone by its part of the world: "Europe" has "Europe/Berlin". Those that are no place are left out. */
export function regions(): Map<string, string[]> {
  if (known) return known
  known = new Map()
  for (const zone of all()) {
    const [region, place] = zone.split('/')
    if (place && region && region !== 'Etc') known.set(region, [...(known.get(region) ?? []), zone])
  }
  return known
}

/** "America/Argentina/Buenos_Aires" as people say it: "Argentina, Buenos Aires". */
export const placeIn = (zone: string) =>
  zone
    .split('/')
    .slice(zone.includes('/') ? 1 : 0)
    .join(', ')
    .replaceAll('_', ' ')

/** The time on the wall there: "19:32 on Tuesday". */
export function timeIn(zone: string, now = new Date()): string {
  try {
    const time = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(now)
    return `${time} on ${new Intl.DateTimeFormat('en-GB', { timeZone: zone, weekday: 'long' }).format(now)}`
  } catch {
    return 'an unknown time'
  }
}
