import { InputError } from '../errors.ts'
import { crc32 } from './crc32.ts'

/**
 * The text in the code of a printed card: mark, version, check sum of the JSON (hex) and the packed JSON, with points
 * between. Packing is the caller's: server and page have their own libraries.
 */
const mark = 'WILDSPRING'
/** Goes up with `cardVersion` of the contract, and with the dictionary. */
export const codeForm = 1

/**
 * What nearly every card holds; deflate then writes only what is its own. Frozen: a card printed years ago is read with
 * this very text, so another dictionary is another version.
 */
export const dictionary =
  '"surface":"dry-hard""dry-loose""damp""wet""mud""snow""purposes":["flow","rough","wet","jump","climb","race","winter","tour"]' +
  '"kind":"custom","role":"custom","name":"","unitLabel":"","min":0,"max":10,"step":1,"acts":{"stroke":"whole","on":"compression","speed":"low"},' +
  '"kind":"turn","role":"preload","turns":10,"stepTurns":0.25,"countBase":"open","tool":"hex-2""hex-2.5""hex-3""hex-4",' +
  '"kind":"spring-rate","role":"spring-rate","ratesNPerMm":[70,75,80],"spring":"coil",' +
  '{"alias":null,"tool":"shock-pump","kind":"pressure","role":"reservoir-pressure""negative-pressure","minPsi":45,"maxPsi":140,"stepPsi":1,"value":' +
  ',"how":"assumed"},{"alias":null,"tool":"hand","kind":"lever","role":"lever","positions":["Open","Middle","Firm"],"value":0,"how":"set"},' +
  '{"alias":null,"tool":"workshop","kind":"spacer","role":"spacers","maxCount":4,"value":1,"how":"read"},' +
  '{"alias":null,"tool":"hand","kind":"click","role":"high-speed-rebound","clicks":12,"step":1,"countBase":"closed-1","value":null,"how":null},' +
  '{"alias":null,"tool":"hand","kind":"click","role":"high-speed-compression","clicks":8,"step":1,"countBase":"closed-0","value":5,"how":"read"},' +
  '{"alias":null,"tool":"hand","kind":"click","role":"low-speed-compression","clicks":16,"step":1,"countBase":"closed-0","value":10,"how":"read"},' +
  '{"alias":null,"tool":"hand","kind":"click","role":"rebound","clicks":14,"step":1,"countBase":"closed-0","value":6,"how":"read"}]}' +
  '{"card":"setup","version":1,"name":"","bike":"","rider":"","ridingMassKg":null,"madeAt":"2026-01-01T10:00:00.000Z","by":"","purposes":[],"found":{"place":"","airTempC":10,"altitudeM":400,"surface":"damp"},' +
  '"sag":{"frontPct":null,"rearPct":null,"front":"ready","rear":"seated"},"rearWheelTravelMm":150,"tyreFrontPsi":22,"tyreRearPsi":25,"geometry":"","words":"",' +
  '"units":[{"end":"front","name":"160 mm air fork","spring":"air","strokeMm":160,"sagTargetPct":20,"revalved":false,"dials":[{"alias":null,"tool":"shock-pump","kind":"pressure","role":"main-pressure","minPsi":45,"maxPsi":140,"stepPsi":1,"value":80,"how":"read"},' +
  '{"end":"rear","name":"55 mm air shock","spring":"air","strokeMm":55,"sagTargetPct":30,"revalved":false,"dials":[{"alias":null,"tool":"shock-pump","kind":"pressure","role":"main-pressure","minPsi":90,"maxPsi":300,"stepPsi":1,"value":180,"how":"read"},'

/** How one side of the house compresses: raw deflate of the UTF-8 text with the dictionary, as base64url. */
export interface CardPacking {
  pack: (text: string) => string
  /** May throw. */
  unpack: (packed: string) => string
}

/** CRC-32 over UTF-16, low byte first. */
function sumOf(text: string): string {
  const bytes = new Uint8Array(2 * text.length)
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i)
    bytes[2 * i] = unit & 255
    bytes[2 * i + 1] = unit >> 8
  }
  return crc32(bytes).toString(16).padStart(8, '0')
}

/** @param json the card; see contract/card.ts */
export function writeCode(json: string, { pack }: Pick<CardPacking, 'pack'>): string {
  return `${mark}.${codeForm}.${sumOf(json)}.${pack(json)}`
}

/** The JSON of a card from the text of its code. @throws InputError 'card.not-ours', 'card.newer', 'card.torn' */
export function openCode(code: string, { unpack }: Pick<CardPacking, 'unpack'>): string {
  const [found, form, sum, packed] = code.trim().split('.')
  if (found !== mark || !/^\d+$/.test(form ?? '')) throw new InputError('card.not-ours')
  if (Number(form) > codeForm) throw new InputError('card.newer', { got: Number(form), known: codeForm })
  let json: string
  try {
    json = unpack(packed ?? '')
  } catch {
    throw new InputError('card.torn')
  }
  if (sumOf(json) !== sum) throw new InputError('card.torn')
  return json
}
