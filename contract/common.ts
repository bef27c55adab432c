import { z } from 'zod'
import { sentenceOf } from './sentences.ts'

// Everything of the contract stands on this file: whoever reads a refusal reads a sentence.
z.config({ customError: sentenceOf })

/** Client-made identifier: UUID, version 7 so that ids sort by the time they were made. */
export const Id = z.uuid()
export type Id = z.infer<typeof Id>

/** UTC instant, ISO 8601 with a trailing Z. */
export const Instant = z.iso.datetime()

/** Calendar day at the trail, YYYY-MM-DD, no time zone. */
export const CalendarDay = z.iso.date()

export const Name = z.string().trim().min(1, 'Give it a name.').max(80, 'Keep the name under 80 letters.')
export const Note = z.string().max(2000, 'Keep the note under 2000 letters.')

/** Version of an editable record: 0 before the first save, then counted up by the server. */
export const Version = z.number().int().min(0)

export const End = z.enum(['front', 'rear'])
export type End = z.infer<typeof End>

/** Fields, and ids of adjusters, whose number is typical or guessed: nobody has measured, counted or read it. */
export const Assumed = z.array(z.string().max(60)).max(24).default([])
