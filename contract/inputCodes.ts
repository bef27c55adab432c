/**
 * Everything bad input is refused for, with the sentence a person reads: what is wrong and what would be right. The core
 * throws these codes and they stand on the wire as they are. A code is stable and never reused; `{x}` is filled from the
 * detail. No import here: the core may read this file.
 */
export const inputSentences = {
  'clicks.out-of-range': 'Position {got} is outside 0 to {max}; recount the dial if the real range differs.',
  'adjuster.cannot-stand':
    'This part has no such place; read it again, or put right its range or steps in the garage.',
  'recount.range': 'A click dial has 1 to 60 clicks from stop to stop, got {got}; count again.',
  'recount.closing': 'It took {got} clicks to close but the dial has only {max} in all; count both again.',
  'recount.step':
    '{got} does not fall on steps of {step}; say that the dial has half-clicks, or count again.',
  'sag.stroke': 'Stroke must be above 0 mm, got {got}.',
  'sag.ring-beyond-stroke':
    'A ring reading of {ringMm} mm is longer than the stroke of {strokeMm} mm; enter mm, measured from wiper to ring.',
  'sag.negative': 'A ring reading cannot be below 0 mm.',
  'sag.no-reading': 'Take at least one sag reading first.',
  'sag.reading-range': 'Sag must lie between 0 and 100 %, got {got}; read the ring again.',
  'sag.wheel-beyond-travel': 'A wheel movement of {got} mm is more than the wheel travel of {travelMm} mm.',
  'sag.eyes': 'The loaded length ({loadedMm} mm) must be shorter than the free length ({freeMm} mm).',
  'sag.no-linkage':
    'Wheel travel of the bike is not known, so a reading at the wheel cannot be turned into sag; add it in the garage.',
  'sim.no-pressure': 'The {end} air spring needs a pressure before it can be ridden; set it on the rail.',
  'sim.no-spring':
    'The {end} coil unit needs a spring before it can be ridden; list its springs in the garage.',
  'air.temperature': 'A temperature of {got} °C is below absolute zero.',
  'air.altitude': 'Height must lie between -500 and 9000 m, got {got}.',
  'card.not-ours':
    'This is no setup card; choose the picture of a card’s code, or the file that came with it.',
  'card.newer':
    'This card was made by a newer Wild Spring (form {got}, this one reads up to {known}); update it first.',
  'card.torn': 'The code is not whole. Take the picture again, flat and in good light, or use the file.',
  'card.no-code': 'No code was found in the picture. Take it again, flat, sharp and in good light.',
  'coil.rate': 'A spring rate must be above 0 N/mm, got {got}.',
  'coil.preload': 'Preload of {got} turns is outside 0 to {max}; beyond that take another spring.',
  'coil.no-rates': 'List at least one spring to choose from.',
  'coil.table': 'The rate table of a progressive spring needs at least two rows that rise from row to row.',
  'mass.missing': 'Give the riding weight first: body, kit and water.',
  'damper.positive': '{what} must be above 0, got {got}.',
  'chart.empty': 'Paste at least two rows: weight or pressure, then the setting.',
  'chart.row': 'Row {row}: "{text}" needs two numbers, weight or pressure first, then the setting.',
  'chart.order': 'Row {row}: {got} does not come after {before}; sort the rows from light to heavy.',
  'chart.mixed-units':
    'Row {row} is in {got} but the rows before are in {before}; use one unit for a column.',
  'chart.unit': 'Row {row}: the unit {got} does not belong here; use {want}.',
  'pressures.not-numbers':
    '{got} is no pressure; type what the gauge shows, one number after the other, a dash for what was not read.',
  'pressures.too-many': '{got} pressures for {max} springs with air; a dash passes one by.',
  'pressures.out-of-range':
    'Number {place}, {got}, is outside what that part takes; check the order and the unit.',
  'air.pressure': 'Air pressure must be above 0 psi, got {got}.',
  'air.spacers': 'That many spacers fill the chamber; at most {max} fit this model.',
  'leverage.points':
    'A leverage curve needs at least two points with ratios above 0 whose shaft positions rise from row to row.',
  'root.not-bracketed': 'No solution lies between {low} and {high}.',
  'signal.too-short': 'The signal needs at least {needed} samples, got {got}.',
  'signal.cutoff': 'The cut-off must lie between 0 and half the sample rate ({nyquist} Hz), got {got}.',
  'signal.window': 'The window must be odd and longer than the polynomial order, got {got}.',
  'calibration.equal':
    'The two calibration readings are equal ({got}); take one at full extension and one at full compression.',
  'calibration.wrong-kind':
    'A pressure calibration belongs to a pressure column; choose pressure for it, or calibrate travel by points.',
  'calibration.pressure-missing':
    'Pressure needs its calibration: the compression ratio and the baseline pressure at full extension.',
  'calibration.depths':
    'A chamber is calibrated by at least {least} held depths that span {spanPct} % of the stroke; hold it deeper once more.',
  'calibration.depth-off':
    '{mm} mm at {psi} psi lies {off} mm off the line of the other depths; hold it there again, wait 20 s, and read the ring.',
  'calibration.depths-ratio':
    'Pressure must rise with depth as in a closed chamber (compression ratio 1.2 to 10); read ring and pressure again.',
  'mapping.coil':
    'The {end} unit has a coil spring: it has no air chamber whose pressure could tell its travel. Choose another column.',
  'gpx.unreadable': 'The GPX file cannot be read: {why}. Export the track again as GPX 1.1.',
  'gpx.no-track':
    'The GPX file holds no track with at least two points; export a track, not a route or waypoints.',
  'gpx.no-time': 'The points of the GPX track have no times, so they cannot be laid on a recording.',
  'gpx.no-place':
    'The points of the GPX track lie at 0°, 0° or far apart from each other, so they tell no way; export the track again.',
  'join.no-match':
    'It could not be found when {file} began against the recording; say how many seconds after its start.',
  'join.apart': '{file} and the recording do not overlap in time; check the offset of {offsetS} s.',
  'join.nothing': '{file} adds nothing: the recording already has {has}.',
  'file.long-row': 'Line {line} is longer than {max} letters; that is no table of numbers.',
  'file.columns': 'The file has {got} columns; at most {max} are read.',
  'file.samples':
    'At {rateHz} Hz over {durationS} s the recording would have {got} samples; at most {max} are read. Check the time column and its unit, or split the recording.',
  'file.gaps': 'The clock of the file stands still or leaps {got} times; at most {max} pauses are read.',
  'file.took-too-long':
    'Reading the file took longer than {seconds} s and was given up; check its time column, or split the recording.',
  'file.too-much-memory':
    'Reading the file needed more memory than is allowed and was given up; check its time column, or split the recording.',
  'figures.not-finite':
    'No sound figures come out of this file ({path}); check the time column, the units and the calibration.',
  'gpx.points': 'The GPX track has more than {max} points; split it.',
  'gpx.entities':
    'The GPX file declares a document type or entities of its own; export the track again as plain GPX 1.1.',
  'gpx.depth': 'The GPX file is nested deeper than {max} levels; export the track again as GPX 1.1.',
  'file.empty': 'The file is empty; choose a delimited text file with a header line and rows of numbers.',
  'file.binary': 'The file is not text; export the recording as CSV or other delimited text first.',
  'file.header-only': 'The file has a header but no rows of numbers.',
  'file.one-column':
    'Only one column was found; the file should separate its columns by comma, semicolon, tab, bar or space.',
  'file.no-numbers': 'No row of numbers was found in the file.',
  'mapping.no-travel': 'Say which column is front travel or rear travel; at least one is needed.',
  'mapping.no-time': 'No time column is chosen; choose one or give the sample rate in Hz.',
  'mapping.role-twice': 'Two columns are both set to {role}; choose one.',
  'mapping.column': 'Column {column} does not exist; the file has {columns} columns.',
  'mapping.travel-and-pressure':
    'The {end} end has more than one column of travel or pressure; choose one of them.',
  'mapping.unit':
    'Nothing says what {role} is measured in; choose its unit: mm, cm, inches, % or a fraction of the travel, or raw readings.',
  'mapping.no-wheel-travel':
    'The wheel travel of this bike is not known, so rear wheel travel cannot be read; add it in the garage.',
  'mapping.raw':
    'Raw readings of {role} need a calibration: one reading at full extension, one at full compression.',
  'mapping.delimiter':
    'The columns of this file are separated by {found}, not by {asked}; choose the file again to have it looked at afresh.',
  'mapping.no-stroke':
    'The travel of the {end} unit is not known; add the unit to the bike in the garage first.',
  'time.unreadable': 'Time could not be read in line {line}; expected a number, hh:mm:ss or an ISO date.',
  'time.date-order':
    'The dates of the time column can be read as day and month or as month and day; choose their order.',
  'time.one-sample': 'The file has fewer than two usable rows.',
  'time.never-moves':
    'The time column never moves forward; choose another column or give the sample rate in Hz.',
  'time.too-fast':
    'By its time column the file has {rateHz} samples a second and lasts {durationS} s; no logger is faster than {max}. Choose the unit that the column is in; a spreadsheet’s days have to be written as seconds.',
  'channel.constant': 'The {role} column never moves; check the sensor or choose another column.',
  'channel.outside':
    'Most of the {role} column lies outside 0 to 100 % of {strokeMm} mm: between {low} and {high} %. Choose its unit; if it tells a length of the unit, give its two readings at full extension and full compression.',
  'channel.empty': 'The {role} column holds no numbers.',
  'rate.out-of-range': 'The sample rate must be between {min} and {max} Hz, got {got}.',
  'springs.not-numbers': 'Say the springs as numbers, for example "450 500 550"; "{got}" is none.',
  'command.empty': 'Type what to change, for example "rear reb slower 1".',
  'command.unknown-word': '"{word}" is not understood; {hint}.',
  'command.no-end': 'Say which end first: fork or front, shock or rear.',
  'command.no-part': 'Say what to turn: the {end} unit has {has}.',
  'command.nobody-has': 'Neither end of this bike has {what}.',
  'command.which-way': '{what} goes {words}; its numbers run either way.',
  'command.other-rider': 'This is the bike of {here}. Open the day of {rider} first.',
  'command.no-adjuster': 'The {end} unit has no {what}; it has {has}.',
  'command.no-amount': 'Say how far: a number, for example "{example}".',
  'command.out-of-range': '{what} goes from {min} to {max}; {got} is outside.',
  'command.no-step': '{what} moves in steps of {step}; {got} falls between.',
  'command.unread': 'Nobody has read where {end} {what} stands; count or read it first, then turn it.',
  'command.no-reading':
    'Say what was read, for example "read rear rebound 8", or "read rear rebound unsure".',
  'command.end-alone':
    'What about {what}? Say its part, way and number again, or say “both ends” for the same at both.',
  'command.twice': 'The {end} {what} is said twice; say each part once.',
  'command.elsewhere':
    'The {end} {what} stands at {stands}, not at {said}. Look where it stands, say "read" and the count, then turn it.',
  'command.sign-and-way':
    '"{sign}" and "{way}" may go against each other; say the way and by how much, or the sign alone.',
  'command.other-way': 'From {from} to {to} is not {way}; say the place alone, or the way and by how much.',
  'command.not-done': '"{word}": a line says what is turned; leave out what is not.',
  'command.tyres': 'A tyre is no part of fork or shock; note its pressure with the run.',
  'command.undo-one': 'Undo takes the last change back, one each time: type "undo" alone.',
  'command.no-change': '{what} is already there.',
} as const

export type InputCode = keyof typeof inputSentences
