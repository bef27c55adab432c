import { describe, expect, it } from 'vitest'
import { acceptedFiles, kindOfFile } from './fileKinds.ts'

describe('the kind of a file', () => {
  it.each([
    ['way.gpx', 'gpx'],
    ['Afternoon Ride.GPX', 'gpx'],
    ['run 3.csv', 'delimited'],
    ['LOG0001.TXT', 'delimited'],
    ['gpx.csv', 'delimited'],
    ['way.gpx.txt', 'delimited'],
    ['noending', 'delimited'],
    ['ride.dat', 'delimited'],
  ])('%s is %s', (name, kind) => expect(kindOfFile(name)).toBe(kind))
  it('every ending that is known is offered by the chooser', () => {
    expect(acceptedFiles.split(',')).toEqual(expect.arrayContaining(['.gpx', '.csv', '.tsv', 'text/*']))
  })
})
