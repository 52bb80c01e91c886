const systems: [RegExp, string][] = [
  [/iPhone/, 'iPhone'],
  [/iPad/, 'iPad'],
  [/Android.*Mobile/, 'Android phone'],
  [/Android/, 'Android tablet'],
  [/Windows/, 'Windows computer'],
  [/Mac OS X|Macintosh/, 'Mac'],
  [/CrOS/, 'Chromebook'],
  [/Linux/, 'Linux computer'],
]

const browsers: [RegExp, string][] = [
  [/Edg\//, 'Edge'],
  [/OPR\//, 'Opera'],
  [/Firefox\//, 'Firefox'],
  [/Chrome\//, 'Chrome'],
  [/Safari\//, 'Safari'],
]

const named = (from: [RegExp, string][], agent: string) => from.find(([sign]) => sign.test(agent))?.[1]

/** What a browser says it is, as its owner would say it: "Firefox on an Android tablet". */
export function deviceOf(agent: string): string {
  const [browser, system] = [named(browsers, agent), named(systems, agent)]
  if (!browser && !system) return 'Some device'
  if (!browser || !system) return (browser ?? system)!
  return `${browser} on ${/^[AEIOU]|^iP/.test(system) ? 'an' : 'a'} ${system}`
}
