/** What loggers of other tongues call what is measured, and where; longer words before those they begin with. */
const words: readonly (readonly [RegExp, string])[] = [
  [/vorderrad|roue avant|ruota anteriore|rueda delantera/g, 'front wheel'],
  [/hinterrad|roue arri[eè]re|ruota posteriore|rueda trasera/g, 'rear wheel'],
  [/gabel|fourche|forcella|horquilla/g, 'fork'],
  [/d(?:ä|ae)mpfer|federbein|amortisseur|ammortizzatore|amortiguador/g, 'shock'],
  [/vorne?(?![a-z])|avant|anteriore|delanter[oa]/g, 'front'],
  [/hinten|arri[eè]re|posteriore|traser[oa]/g, 'rear'],
  [/federweg|d[eé]battement|escursione|recorrido/g, 'travel'],
  [/druck|pressione?|presi[oó]n/g, 'press'],
  [/geschwindigkeit|vitesse|velocit(?:à|a)(?![a-z])|velocidad/g, 'speed'],
  [/beschleunigung|acc[eé]l[eé]ration|accelerazione|aceleraci[oó]n/g, 'acc'],
  [/bremse?|frein|freno/g, 'brake'],
  [/reifen|pneu(?:matico)?|neum[aá]tico/g, 'tyre'],
  [/kraft|forza|fuerza/g, 'force'],
  [/winkel|angolo|[aá]ngulo/g, 'angle'],
  [/drehzahl|giri|tr\/min|u\/min/g, 'rpm'],
  [/h(?:ö|oe)he|hauteur|altezza|altura/g, 'alt'],
]

/** The name of a column with what it measures in English; what is not known stays. @param name in small letters */
export const inEnglish = (name: string): string =>
  words.reduce((n, [word, english]) => n.replace(word, english), name)
